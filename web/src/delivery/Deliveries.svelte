<script lang="ts">
  import { api, got, type LineState, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { exact, many } from '../marks/words';

  let list = $state.raw<Schemas['DeliverySummary'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  let words = $derived(place.get('find'));

  $effect(() => {
    const text = words;
    let stopped = false;
    let timer: ReturnType<typeof setTimeout>;
    const look = async () => {
      try {
        const found = await got(api.GET('/api/deliveries', { params: { query: { text } } }));
        if (stopped) return;
        list = found;
        trouble = null;
      } catch (e) {
        trouble = e;
      }
      if (stopped) return;
      timer = setTimeout(
        look,
        list?.some((d) => d.state === 'RUNNING' || d.state === 'PLANNING') ? 1500 : 8000,
      );
    };
    void look();
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  });

  const all = (d: Schemas['DeliverySummary']) => Object.values(d.lines).reduce((a, b) => a + b, 0);
  const part = (d: Schemas['DeliverySummary'], ...s: LineState[]) =>
    s.reduce((n, k) => n + (d.lines[k] ?? 0), 0);
  let waiting = $derived((list ?? []).filter((d) => d.state === 'PLANNED'));
  let need = $derived((list ?? []).filter((d) => d.confirmedAt && d.lines.NEEDS_PERSON));

  function says(d: Schemas['DeliverySummary']): string {
    const n = all(d);
    if (d.state === 'PLANNING') return `planning, ${n - part(d, 'TO_PLAN')} of ${n}`;
    if (d.state === 'PLANNED') return `planned for ${many(n, 'section')}, waits for your word`;
    if (d.state === 'SCHEDULED') return `begins ${exact(d.beginsAt ?? '')}`;
    const person = part(d, 'NEEDS_PERSON');
    const words = [`${part(d, 'DONE')} of ${many(n, 'section')} done`];
    if (person) words.push(`${person} ${person === 1 ? 'needs' : 'need'} you`);
    if (part(d, 'NOT_YET')) words.push(`${part(d, 'NOT_YET')} not yet`);
    if (part(d, 'STOPPED')) words.push(`${part(d, 'STOPPED')} stopped`);
    return words.join(', ');
  }
</script>

<main class="page folio">
  <h1>
    {#if !list}Reading the ledger …
    {:else if need.length || waiting.length}
      {[
        need.length &&
          `${many(need.length, 'delivery', 'deliveries')} ${need.length === 1 ? 'needs' : 'need'} you`,
        waiting.length &&
          `${many(waiting.length, 'plan')} ${waiting.length === 1 ? 'waits' : 'wait'} for your word`,
      ]
        .filter(Boolean)
        .join(', ')}
    {:else}{many(list.length, 'delivery', 'deliveries')}{/if}
  </h1>
  <Trouble of={trouble} />
  {#if list?.length || words}
    <input
      class="entry find"
      type="search"
      placeholder="Find: name, master, person, section, day"
      aria-label="Find a delivery"
      value={words}
      oninput={(e) => place.set({ find: e.currentTarget.value })}
    />
  {/if}
  {#if list && !list.length && words}
    <p class="quiet none">No delivery has all of these words.</p>
  {:else if list && !list.length}
    <p class="quiet none">
      Nothing was delivered yet. Take sections in hand under <a class="link" href="/coverage"
        >Coverage</a
      >, then plan a version for them.
    </p>
  {/if}
  <ul>
    {#each list ?? [] as d (d.id)}
      {@const n = all(d)}
      <li>
        <a href="/deliveries/{d.id}" class="l" class:need={d.confirmedAt && d.lines.NEEDS_PERSON}>
          <span class="cut"
            >{#if d.name}<b>{d.name}</b> ·
            {/if}{#if d.edit}{d.takesBack ? 'Taken back: ' : ''}{d.edit}{:else}<b class="fig"
                >{d.masterCode}</b
              >
              {d.takesBack ? 'taken back: ' : ''}{d.order
                ? `${d.place + 1} of one order: `
                : ''}{d.masterTitle}{/if}</span
          >
          <span class="fig">{d.edit ? '' : `v${d.number}`}</span>
          <span class="track" aria-hidden="true">
            <i style="width:{(100 * part(d, 'DONE')) / n}%;background:var(--calm)"></i>
            <i style="width:{(100 * part(d, 'RUNNING')) / n}%;background:var(--do)"></i>
            <i style="width:{(100 * part(d, 'TRYING_AGAIN')) / n}%;background:var(--mind-mark)"></i>
            <i
              style="width:{d.confirmedAt
                ? (100 * part(d, 'NEEDS_PERSON')) / n
                : 0}%;background:var(--harm)"
            ></i>
          </span>
          <span class="cut">{says(d)}</span>
          <span class="quiet cut">{d.madeBy}</span>
          <span class="quiet"><When at={d.confirmedAt ?? d.madeAt} /></span>
        </a>
      </li>
    {/each}
  </ul>
</main>
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words={hand.size ? 'Plan a version for them under Coverage.' : ''}
>
  <Act onclick={() => place.go('/deliveries/ledger')}>The ledger …</Act>
</HandFrame>

<style>
  ul {
    margin-top: 10px;
    border-top: 1px solid var(--line);
  }
  .l {
    display: grid;
    grid-template-columns: 270px 34px minmax(80px, 1fr) 300px 150px 100px;
    gap: 12px;
    align-items: center;
    height: 32px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .l:hover {
    background: var(--do-soft);
  }
  .l.need {
    background: var(--harm-soft);
  }
  .track {
    height: 8px;
    background: var(--line-soft);
    display: flex;
  }
  .track i {
    height: 100%;
  }
  .none {
    padding: 20px 0;
  }
  .find {
    width: 340px;
    margin-top: 8px;
  }
</style>
