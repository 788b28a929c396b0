<script lang="ts">
  import { api, counted, got, type Kind, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { heard } from '../frame/heard';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { figure, kind, many, size } from '../marks/words';
  import SourcePick from './SourcePick.svelte';

  /** Two sources, versions or shells side by side: which is the more complete. */
  let look = $state.raw<Schemas['SideBySide'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let looking = $state(false);
  let left = $derived(place.get('left'));
  let right = $derived(place.get('right'));
  keyList.of = [];

  $effect(() => {
    if (!left || !right) return;
    const query = { left, right };
    looking = true;
    return heard(
      got(api.GET('/api/library/beside', { params: { query } })),
      (l) => ((look = l), (trouble = null), (looking = false)),
      (e) => ((trouble = e), (look = null), (looking = false)),
    );
  });

  type Side = Schemas['SideView'];
  type Row = { words: string; left: number; right: number; show: (n: number) => string };
  let rows = $derived.by((): Row[] => {
    if (!look) return [];
    const l = look.left;
    const r = look.right;
    const kinds = [
      ...new Set([...counted<Kind>(l.kinds), ...counted<Kind>(r.kinds)].map(([k]) => k)),
    ];
    const row = (words: string, of: (s: Side) => number | undefined, show = figure): Row => ({
      words,
      left: of(l) ?? 0,
      right: of(r) ?? 0,
      show,
    });
    return [
      row('items', (s) => s.items),
      ...kinds.map((k) => row(kind(k, 2), (s) => s.kinds[k] ?? 0)),
      row('different questions', (s) => s.questions),
      row('words of text', (s) => s.words),
      row('pages without text', (s) => s.empty),
      row('different files', (s) => s.files),
      row('size of these files', (s) => s.bytes, size),
      row('levels of the outline', (s) => s.depth),
      row('only for instructors', (s) => s.instructorsOnly),
      row('ask for something first', (s) => s.asks),
      row('dead references', (s) => s.about.dead),
    ].filter((x) => x.left || x.right);
  });
  const share = (n: number, other: number) => `${(100 * n) / Math.max(n, other, 1)}%`;
  const about = (s: Side): [string, string][] =>
    (
      [
        ['Made by', s.about.maker],
        ['Licence', s.about.licence],
        ['Cost for students', s.about.cost],
        ['Asks for', s.about.asks],
        ['Written as', s.about.standard],
        ['Tools', s.tools.join(', ')],
        ['Frames', s.frames.join(', ')],
      ] as [string, string][]
    ).filter(([, v]) => v);
</script>

<div class="page">
  <header>
    <h1>Side by side</h1>
    <SourcePick label="On the left" value={left} pick={(v) => place.set({ left: v })} />
    <SourcePick label="On the right" value={right} pick={(v) => place.set({ right: v })} />
    <Trouble of={trouble} />
  </header>
  {#if !left || !right}
    <p class="say quiet">
      Choose two: editions of cartridges, versions of masters, or shells of sections.
    </p>
  {:else if looking}
    <p class="say quiet">Looking through both …</p>
  {:else if look}
    <main>
      <section class="sums" aria-label="How much each holds">
        <table>
          <thead>
            <tr>
              <th class="l" title={look.left.about.title}>{look.left.about.title}</th>
              <th></th>
              <th class="r" title={look.right.about.title}>{look.right.about.title}</th>
            </tr>
          </thead>
          <tbody>
            {#each rows as x, i (i)}
              <tr>
                <td class="l">
                  <span class="fig">{x.show(x.left)}</span>
                  <i style:width={share(x.left, x.right)}></i>
                </td>
                <th scope="row">{x.words}</th>
                <td class="r">
                  <i style:width={share(x.right, x.left)}></i>
                  <span class="fig">{x.show(x.right)}</span>
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        <div class="two">
          {#each [look.left, look.right] as s, i (i)}
            <dl>
              {#each about(s) as [name, value] (name)}
                <dt>{name}</dt>
                <dd>{value}</dd>
              {/each}
            </dl>
          {/each}
        </div>
      </section>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <section class="lists" aria-label="What only one has" tabindex="0">
        <p>
          <b>{many(look.equal, 'item')}</b> equal to the letter,
          <b>{figure(look.alike)}</b> in both and different
        </p>
        {#each [look.left, look.right] as s, i (i)}
          <h2 class="cut" title={s.about.title}>
            {s.only
              ? `Only in ${s.about.title}: ${figure(s.only)}`
              : `Nothing only in ${s.about.title}`}
          </h2>
          <ul>
            {#each s.onlyHere as o, n (n)}
              <li class="cut">{o.title} <span class="quiet">{kind(o.kind)}</span></li>
            {/each}
            {#if (s.only ?? 0) > s.onlyHere.length}<li class="quiet">
                and {figure((s.only ?? 0) - s.onlyHere.length)} more
              </li>{/if}
          </ul>
        {/each}
        {#if look.differing.length}
          <h2>In both, and different</h2>
          <ul>
            {#each look.differing as d, n (n)}
              <li class="cut">
                {d.left}{d.right !== d.left ? ` · there “${d.right}”` : ''}
                <span class="quiet">{kind(d.kind)}{d.certain ? '' : ', not sure'}</span>
              </li>
            {/each}
          </ul>
        {/if}
      </section>
    </main>
  {/if}
</div>
<HandFrame
  title={look ? `${figure(look.equal + look.alike)} in both` : 'Side by side'}
  words={look
    ? `${figure(look.left.only ?? 0)} only on the left, ${figure(look.right.only ?? 0)} only on the right`
    : ''}
/>

<style>
  .page {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  header {
    display: flex;
    gap: 16px;
    align-items: center;
    flex-wrap: wrap;
    padding: 10px 16px;
    border-bottom: 1px solid var(--line);
    background: var(--paper);
  }
  .say {
    padding: 24px;
  }
  main {
    display: grid;
    grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
    min-height: 0;
  }
  section {
    overflow: auto;
    padding: 14px 20px;
    min-height: 0;
  }
  .lists {
    border-left: 1px solid var(--line);
    background: var(--paper);
  }
  table {
    width: 100%;
    table-layout: fixed;
  }
  thead th {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-weight: 650;
    padding-bottom: 6px;
  }
  tbody th {
    width: 180px;
    font-weight: 400;
    color: var(--ink-2);
    text-align: center;
  }
  td,
  tbody th {
    height: 26px;
    border-bottom: 1px solid var(--line-soft);
  }
  .l {
    text-align: right;
  }
  .r {
    text-align: left;
  }
  td i {
    display: inline-block;
    height: 10px;
    max-width: 60%;
    background: var(--calm);
    vertical-align: middle;
    margin: 0 6px;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 24px;
    padding-top: 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 120px minmax(0, 1fr);
    gap: 3px 10px;
    align-content: start;
  }
  dt {
    color: var(--ink-2);
  }
  dd {
    overflow-wrap: anywhere;
  }
  .lists h2 {
    padding-top: 12px;
  }
  .lists li {
    min-height: 24px;
    line-height: 24px;
    border-bottom: 1px solid var(--line-soft);
  }
</style>
