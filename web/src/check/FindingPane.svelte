<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import OpenShells from './OpenShells.svelte';
  import { mends, mendWords, whoseWords, type Board, type Row } from './checks';

  /** One finding beside the list: where, and what can be done about it. */
  let { board, row, ids, begun }: { board: Board; row: Row; ids: string[]; begun: () => void } =
    $props();
  type Found = Schemas['FoundIn'];
  const FIRST = 9;
  let found = $state.raw<Found[] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let doing = $state<'' | 'ask' | 'right'>('');
  let words = $state('');
  let find = $state('');
  let put = $state('');
  let all = $state(false);
  let said = $state('');
  let byId = $derived(new Map(board.sections.map((s) => [s.id, s])));

  $effect(() => {
    const term = session.term?.id;
    if (!term) return;
    const params = { path: { check: row.check }, query: { term, subject: row.subject } };
    got(api.GET('/api/checks/{check}', { params })).then(
      (f) => {
        found = f.filter((x) => !x.right);
        if (row.mend === 'REPLACE') find = found[0]?.evidence ?? '';
      },
      (e) => (trouble = e),
    );
  });
  onEscape(() => {
    if (doing) doing = '';
    else place.set({ of: '' });
    return true;
  });
  let seen = $derived(all ? (found ?? []) : (found ?? []).slice(0, FIRST));
  const params = $derived({ path: { check: row.check } });
  const here = $derived({ subject: row.subject, sections: ids });

  /** Where it is said when they meet, or where dates are that were not kept. */
  function calendar() {
    hand.only(ids);
    place.go('/calendar' + (row.check === 'NO_DATE' ? '?meet=1' : '?only=outside'));
  }

  async function mend() {
    try {
      const body = row.mend === 'REPLACE' ? { ...here, find, put } : here;
      const made = await got(api.POST('/api/checks/{check}/mend', { params, body }));
      place.go(made.deliveries.length === 1 ? '/deliveries/' + made.deliveries[0] : '/deliveries');
    } catch (e) {
      trouble = e;
    }
  }
  async function say(e: SubmitEvent) {
    e.preventDefault();
    try {
      const done =
        doing === 'ask'
          ? await got(
              api.POST('/api/checks/{check}/ask', { params, body: { ...here, note: words } }),
            )
          : await got(
              api.POST('/api/checks/{check}/right', { params, body: { ...here, reason: words } }),
            );
      said =
        doing === 'ask'
          ? `A hand-over waits for the instructors of ${many(done.sections, 'section')}`
          : `Right as it is in ${many(done.sections, 'section')}`;
      doing = '';
      words = '';
      trouble = null;
      begun();
    } catch (x) {
      trouble = x;
    }
  }
</script>

<section>
  <h2>{row.words}, {many(row.sections.length, 'section')}</h2>
  <p class="quiet">{row.sentence} It is {whoseWords[row.whose]} to put right.</p>
</section>
{#if found}
  <ul class="rows" aria-label="Sections">
    {#each seen as f, n (n)}
      {@const s = byId.get(f.section)}
      <li>
        <a class="fig link" href="/sections/{f.section}">{s?.code}</a>
        <span class="quiet cut" title={f.evidence}
          >{f.evidence || `${s?.campus} · ${s?.instructors}`}</span
        >
        <a
          class="link quiet"
          href="/seen/{f.section}{f.item ? `?item=${encodeURIComponent(f.item)}` : ''}"
          aria-label="See {s?.code} as a student">see it</a
        >
      </li>
    {/each}
  </ul>
  {#if found.length > seen.length}
    <button class="link quiet" onclick={() => (all = true)}
      >{found.length - seen.length} more</button
    >
  {/if}
  {#if found[0]}<p class="faint">Found since <When at={found[0].since} />.</p>{/if}
{:else if !trouble}
  <div class="skeleton" role="status" aria-label="Reading"></div>
{/if}
<section>
  <h2>Mend</h2>
  <p class="quiet">{mends[row.mend]}</p>
  {#if row.mend === 'REPLACE'}
    <div class="words">
      <label>Words <input class="entry" maxlength="200" bind:value={find} /></label>
      <label>become <input class="entry" maxlength="200" bind:value={put} /></label>
    </div>
  {/if}
  {#if row.mend === 'OPEN_SHELL' && session.me?.role !== 'DESIGNER'}
    <OpenShells {ids} firstDay={board.firstDay} {begun} />
  {/if}
</section>
<div class="acts">
  {#if mendWords(row)}
    <Act main disabled={row.mend === 'REPLACE' && !find} onclick={mend}
      >{mendWords(row)} for {many(ids.length, 'section')}</Act
    >
  {:else if row.mend === 'TOOLS'}
    <Act main onclick={() => place.go('/tools')}>See it under Tools</Act>
  {:else if row.mend === 'CALENDAR'}
    <Act main onclick={calendar}>See it under Calendar</Act>
  {/if}
  {#if doing}
    <form onsubmit={say}>
      <label for="words"
        >{doing === 'ask' ? 'What they are asked' : 'Why it is right as it is'}</label
      >
      <!-- svelte-ignore a11y_autofocus -->
      <textarea
        id="words"
        class="entry"
        rows="3"
        maxlength="1000"
        required={doing === 'right'}
        autofocus
        bind:value={words}></textarea>
      <Act type="submit"
        >{doing === 'ask' ? 'Ask the instructors of' : 'Right in'}
        {many(ids.length, 'section')}</Act
      >
      <button type="button" class="link quiet" onclick={() => (doing = '')}>Not now</button>
    </form>
  {:else}
    <Act onclick={() => (doing = 'ask')}>Ask the instructors …</Act>
    <Act onclick={() => (doing = 'right')}>Right as it is here …</Act>
  {/if}
  <Trouble of={trouble} />
  {#if said}<p class="quiet" role="status">{said}.</p>{/if}
</div>

<style>
  .rows {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  .rows li {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    height: 26px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .acts,
  form {
    display: grid;
    gap: 8px;
  }
  .words {
    display: grid;
    gap: 6px;
    margin-top: 6px;
  }
  .words label {
    display: grid;
    grid-template-columns: 60px 1fr;
    align-items: center;
    font-size: 13px;
  }
  .skeleton {
    height: 160px;
  }
</style>
