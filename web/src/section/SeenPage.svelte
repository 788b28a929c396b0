<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { heard } from '../frame/heard';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { kind, many } from '../marks/words';

  /** A section's shell as students see it on a day. */
  let { id }: { id: string } = $props();
  keyList.of = [['Up, down', 'From item to item']];
  let section = $state.raw<Schemas['Section'] | null>(null);
  let shell = $state.raw<Schemas['SeenShell'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let on = $derived(place.get('on') || new Date().toLocaleDateString('sv'));
  let diligent = $derived(place.get('done') === 'all');

  $effect(() => {
    got(api.GET('/api/sections/{id}', { params: { path: { id } } })).then(
      (s) => (section = s),
      (e) => (trouble = e),
    );
  });
  $effect(() => {
    const params = { path: { id }, query: { on, diligent } };
    return heard(
      got(api.GET('/api/sections/{id}/seen', { params })),
      (s) => ((shell = s), (trouble = null)),
      (e) => (trouble = e),
    );
  });
  let item = $derived(place.get('item') || shell?.front || '');
  let line = $derived(shell?.lines.find((l) => l.item === item));
  let hidden = $derived(!!shell && !!item && !line && item !== shell.front);

  function keys(e: KeyboardEvent) {
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    if (!by || !shell) return;
    e.preventDefault();
    const at = shell.lines.findIndex((l) => l.item === item);
    const to = shell.lines[Math.max(0, Math.min(shell.lines.length - 1, at + by))];
    if (!to) return;
    place.set({ item: to.item });
    document.getElementById('line ' + to.item)?.focus();
  }
  const day = (at: string) =>
    new Date(at).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
</script>

<div class="page">
  <main class="left">
    <div class="head">
      <h1>
        {#if section}<span class="fig">{section.code}</span> as a student sees it{:else}Opening the
          shell …{/if}
      </h1>
    </div>
    <div class="choose">
      <label
        >on <input
          class="entry"
          type="date"
          value={on}
          onchange={(e) => place.set({ on: e.currentTarget.value })}
        /></label
      >
      <label class="look"
        ><input
          type="checkbox"
          checked={diligent}
          onchange={(e) => place.set({ done: e.currentTarget.checked ? 'all' : '' })}
        />who has done all that is asked before</label
      >
    </div>
    <Trouble of={trouble} />
    {#if shell}
      {#if shell.closed}<p class="closed" role="status">{shell.closed} Nobody gets in.</p>{/if}
      {#if shell.menu.length}
        <nav class="places" aria-label="Menu of the shell">
          {#each shell.menu as m, n (n)}
            {#if m.item}<button class="link" onclick={() => place.set({ item: m.item ?? '' })}
                >{m.label}</button
              >{:else}<span class="quiet">{m.label}</span>{/if}
          {/each}
        </nav>
      {/if}
      <ul aria-label="What students see">
        {#if shell.front}
          <li>
            <button
              class="line"
              class:here={item === shell.front}
              onclick={() => place.set({ item: '' })}>Front page</button
            >
          </li>
        {/if}
        {#each shell.lines as l (l.item)}
          <li>
            <button
              id="line {l.item}"
              class="line"
              class:here={l.item === item}
              class:shut={l.closed.length}
              class:module={l.kind === 'MODULE'}
              style="padding-left:{8 + l.depth * 16}px"
              onclick={() => place.set({ item: l.item })}
              onkeydown={keys}
            >
              <span class="cut">{l.title}</span>
              <span class="quiet cut">{l.closed[0] ?? (l.due ? `due ${day(l.due)}` : '')}</span>
            </button>
          </li>
        {:else}
          <li class="quiet">Students see nothing here on that day.</li>
        {/each}
      </ul>
    {:else if !trouble}<div class="skeleton tall" role="status" aria-label="Reading"></div>{/if}
  </main>
  <section class="text" aria-label="What it says">
    {#if hidden}
      <p class="quiet pad">Students do not see this item on that day.</p>
    {:else if line && line.closed.length}
      <h2 class="pad">{line.title}</h2>
      <p class="quiet pad">Closed: {line.closed.join('; ')}.</p>
    {:else if item && shell}
      {#if line}
        <p class="quiet pad">
          {kind(line.kind)}{line.points ? `, ${line.points} points` : ''}{line.due
            ? `, due ${day(line.due)}`
            : ''}
        </p>
      {/if}
      <iframe
        title={line?.title ?? 'Front page'}
        sandbox="allow-popups allow-same-origin"
        src="/api/sections/{id}/seen/{encodeURIComponent(item)}"
      ></iframe>
    {:else if shell}<p class="quiet pad">Choose an item to read it.</p>{/if}
  </section>
</div>
<HandFrame
  title={shell ? `${many(shell.lines.length, 'item')} seen` : ''}
  words={shell ? `${many(shell.hidden, 'item')} of the shell not seen` : ''}
>
  {#if shell}<span class="quiet">As read <When at={shell.readAt} /></span>{/if}
  <a class="link" href="/sections/{id}">The section</a>
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: 430px minmax(0, 1fr);
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    padding: 12px 0 0 16px;
    border-right: 1px solid var(--line);
  }
  h1 {
    white-space: nowrap;
  }
  .choose {
    display: flex;
    gap: 16px;
    align-items: center;
    font-size: 13px;
    margin: 6px 0 8px;
    flex-wrap: wrap;
  }
  .choose label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .choose .entry {
    width: 150px;
  }
  .look {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 24px;
  }
  .closed {
    background: var(--mind-soft);
    color: var(--mind);
    padding: 6px 10px;
    margin-right: 16px;
  }
  .places {
    display: flex;
    gap: 14px;
    flex-wrap: wrap;
    padding: 4px 0;
    font-size: 13.5px;
  }
  ul {
    overflow: auto;
    min-height: 0;
    padding-bottom: 64px;
    border-top: 1px solid var(--line);
  }
  .line {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 150px);
    gap: 10px;
    width: 100%;
    min-height: 28px;
    align-items: center;
    padding-right: 12px;
    padding-left: 8px;
    text-align: left;
    font-size: 13.5px;
    cursor: pointer;
  }
  .line:hover,
  .line.here {
    background: var(--do-soft);
  }
  .line.shut > :first-child {
    color: var(--ink-3);
  }
  .module {
    font-weight: 650;
  }
  .text {
    display: flex;
    flex-direction: column;
    min-height: 0;
    background: var(--raise);
    padding-bottom: 52px;
  }
  .pad {
    padding: 12px 16px 0;
  }
  iframe {
    border: 0;
    flex: 1;
    width: 100%;
    background: white;
  }
</style>
