<script lang="ts">
  import { Dropdown, DropdownItem } from 'flowbite-svelte';
  import { api, csrf, got, type Schemas } from '../api/client';
  import Making from './Making.svelte';
  import Ring from './Ring.svelte';
  import Search from './Search.svelte';
  import Vane from './Vane.svelte';
  import { place } from './place.svelte';
  import { onEscape } from './escape.svelte';
  import { session } from './session.svelte';

  const places = [
    ['Coverage', '/coverage'],
    ['Sources', '/sources'],
    ['Deliveries', '/deliveries'],
    ['Tools', '/tools'],
    ['Calendar', '/calendar'],
    ['Checks', '/checks'],
    ['Hand-overs', '/hand-overs'],
  ] as const;
  let running = $state.raw<Schemas['DeliverySummary'][]>([]);
  let dark = $state(document.documentElement.classList.contains('dark'));
  let open = $state(false);
  let here = $derived(places.find(([, to]) => place.path.startsWith(to))?.[0]);

  $effect(() => {
    if (!session.coordinates) return;
    let stopped = false;
    const look = async () => {
      try {
        running = await got(api.GET('/api/deliveries/running'));
      } catch {
        running = []; // the page itself says when the server does not answer
      }
      if (!stopped) timer = setTimeout(look, running.length ? 2000 : 8000);
    };
    let timer = setTimeout(look, 0);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  });

  let work = $derived.by(() => {
    let done = 0;
    let all = 0;
    for (const d of running)
      for (const [state, n] of Object.entries(d.lines)) {
        all += n;
        if (['DONE', 'PLANNED', 'NEEDS_PERSON', 'NOT_YET', 'STOPPED'].includes(state)) done += n;
      }
    return { done, all };
  });

  const NEXT = 'next';
  let nextTerm = $derived(session.me?.role !== 'DESIGNER' && session.terms.length > 1);

  /** The last line is no term: it leads to the next one. */
  function chosen(terms: HTMLSelectElement) {
    if (terms.value !== NEXT) session.choose(terms.value);
    else {
      terms.value = session.term?.id ?? '';
      place.go('/next-term');
    }
  }

  function theme() {
    dark = document.documentElement.classList.toggle('dark');
    localStorage.setItem('theme', dark ? 'dark' : 'light');
    open = false;
  }

  async function leave() {
    await fetch('/api/sign-out', { method: 'POST', headers: { 'X-XSRF-TOKEN': csrf() } });
    sessionStorage.clear();
    location.assign('/');
  }

  onEscape(() => {
    if (!open) return false;
    open = false;
    return true;
  });
</script>

<header>
  <a class="mark" href="/"><Vane />Zephyrmist</a>
  <nav aria-label="Places">
    {#if session.coordinates}
      {#each places as [name, to] (to)}
        <a href={to} class:here={here === name} aria-current={here === name ? 'page' : undefined}
          >{name}</a
        >
      {/each}
    {:else}
      <a href="/sections" class="here" aria-current="page">My sections</a>
    {/if}
  </nav>
  <div class="end">
    {#if session.coordinates && session.term}
      <select
        class="entry term"
        aria-label="Term"
        value={session.term.id}
        onchange={(e) => chosen(e.currentTarget)}
      >
        {#each session.terms as t (t.id)}
          <option value={t.id}>{t.title}{t.week ? ` · week ${t.week} of ${t.weeks}` : ''}</option>
        {/each}
        {#if nextTerm}<hr />
          <option value={NEXT}>Bring one term into another …</option>{/if}
      </select>
    {/if}
    <Search />
    {#if session.making}
      <Making /> <!-- what runs then is of it -->
    {:else if running.length}
      <a
        class="work"
        href={running.length === 1 ? '/deliveries/' + running[0].id : '/deliveries'}
        aria-label="Running work: {work.done} of {work.all} sections"
      >
        <Ring done={work.done} of={work.all} />
        <span class="fig">{work.done}/{work.all}</span>
      </a>
    {/if}
    <button class="who" id="who" title={session.me?.name}>{session.me?.name}</button>
    <Dropdown triggeredBy="#who" bind:isOpen={open} simple class="menu">
      {#if session.me?.role === 'COORDINATOR' || session.me?.role === 'ADMINISTRATOR'}
        <DropdownItem class="menu-line" onclick={() => ((open = false), place.go('/college'))}>
          The college: roster and platforms
        </DropdownItem>
      {/if}
      {#if session.me?.role === 'ADMINISTRATOR'}
        <DropdownItem class="menu-line" onclick={() => ((open = false), place.go('/record'))}>
          Record: who did what
        </DropdownItem>
      {/if}
      <DropdownItem class="menu-line" onclick={() => ((open = false), place.go('/myself'))}>
        Your password and tokens
      </DropdownItem>
      <DropdownItem class="menu-line" onclick={theme}
        >{dark ? 'Light colours' : 'Dark colours'}</DropdownItem
      >
      <DropdownItem class="menu-line" onclick={leave}>Sign out</DropdownItem>
    </Dropdown>
  </div>
</header>

<style>
  header {
    display: flex;
    align-items: stretch;
    gap: 4px;
    height: 44px;
    padding: 0 16px;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
  }
  .mark {
    display: flex;
    align-items: center;
    gap: 8px;
    font-weight: 700;
    letter-spacing: 0.01em;
    margin-right: clamp(4px, 1.5vw, 20px);
  }
  nav {
    display: flex;
  }
  nav a {
    display: flex;
    align-items: center;
    padding: 0 clamp(5px, 1.6vw - 10px, 12px);
    color: var(--ink-2);
    position: relative;
    white-space: nowrap;
  }
  nav a.here {
    color: var(--ink);
    font-weight: 650;
  }
  nav a.here:after {
    content: '';
    position: absolute;
    left: 4px;
    right: 4px;
    bottom: -1px;
    height: 3px;
    background: var(--do);
  }
  .end {
    margin-left: auto;
    min-width: 0;
    display: flex;
    align-items: center;
    gap: clamp(8px, 1.1vw, 14px);
    color: var(--ink-2);
  }
  .term {
    min-width: 80px;
    flex-shrink: 1;
    min-height: 28px;
    padding-top: 2px;
    padding-bottom: 2px;
    color: var(--ink-2);
  }
  .work {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .who {
    min-width: 60px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    cursor: pointer;
  }
  :global(.menu) {
    background: var(--raise);
    border: 1px solid var(--line);
    border-radius: var(--r);
    box-shadow: 0 6px 18px rgb(0 0 0 / 12%);
    z-index: 40;
    padding: 4px 0;
    list-style: none;
  }
  :global(.menu-line) {
    font: inherit;
    color: var(--ink);
    padding: 6px 14px;
    white-space: nowrap;
    width: 100%;
    text-align: left;
  }
  :global(.menu-line:hover) {
    background: var(--do-soft);
    color: var(--ink);
  }
</style>
