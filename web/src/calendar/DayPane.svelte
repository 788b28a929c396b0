<script lang="ts">
  import Act from '../frame/Act.svelte';
  import { many } from '../marks/words';
  import { dayOf, isoOf, load, remarkWords, type At, type Band, type Picture } from './ribbon';

  /** What is due on a day, or in a week, of a line. */
  let {
    p,
    band,
    from,
    days,
    all,
    move,
    open,
    moved,
    undo,
    hand,
  }: {
    p: Picture;
    band: Band;
    from: number;
    days: number;
    all: At[];
    move: (items: At[], days: number, alone: boolean) => void;
    /** The whole week, or the day alone. */
    open: (week: boolean) => void;
    /** How many steps can be taken back here. */
    moved: number;
    undo: () => void;
    /** Sections of the line that are in hand. */
    hand: number;
  } = $props();
  let alone = $state(false);
  const by = (n: number) => move(chosen, n, alone && hand > 0);

  const long = (d: number, weekday = true) =>
    new Date(isoOf(d)).toLocaleDateString('en-GB', {
      ...(weekday ? { weekday: 'long' as const } : {}),
      day: 'numeric',
      month: 'long',
    });
  const short = (iso: string) =>
    new Date(iso).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
  /** The pattern in short; its time is that of the date. */
  const said = (d: At['due']) => d.pattern!.replace(/^week /, 'wk ').replace(/ \d\d:\d\d$/, '');
  const clock = (iso: string) => iso.slice(11, 16);
  let masters = $derived(new Map(p.masters.map((m) => [m.id, m])));
  let off = $derived(
    band.calendar?.says.off.find((o) => from >= dayOf(o.first) && from <= dayOf(o.last)),
  );
  let taken = $state.raw(new Set<string>());
  const id = (a: At) => a.due.master + a.due.item + a.row.course + a.row.calendar;
  $effect(() => {
    void [from, days, band];
    taken = new Set();
  });
  let chosen = $derived(taken.size ? all.filter((a) => taken.has(id(a))) : all);
  let own = $derived(all.flatMap((a) => a.due.own.map((o) => ({ ...o, title: a.due.title }))));
  function toggle(a: At) {
    const next = new Set(taken);
    if (!next.delete(id(a))) next.add(id(a));
    taken = next;
  }
</script>

<div>
  <h2>
    {days > 1 ? `Week from ${long(from, false)}` : long(from)}, {band.title}
  </h2>
  <p class="quiet">
    {#if off && days === 1}{off.name}: nobody teaches.{/if}
    {all.length
      ? `${many(all.length, 'item')} due, ${many(load(all), 'date')} in all sections.`
      : days > 1
        ? 'Nothing is due in this week.'
        : 'Nothing is due on this day.'}
    <button class="link" onclick={() => open(days === 1)}
      >{days === 1 ? 'The whole week' : 'One day alone'}</button
    >
  </p>
  {#if all.length}
    <table>
      <thead>
        <tr><th></th><th>Item</th><th>Pattern</th><th>Becomes</th></tr>
      </thead>
      <tbody>
        {#each all as a (id(a))}
          {@const m = masters.get(a.due.master)}
          <tr class:look={a.due.remarks.length || a.due.own.length}>
            <td
              ><input
                type="checkbox"
                aria-label="Take “{a.due.title}” of {a.row.course}"
                checked={taken.has(id(a))}
                onchange={() => toggle(a)}
              /></td
            >
            <td
              ><a class="link" href="/sources/masters/{a.due.master}?item={a.due.item}"
                >{a.due.title}</a
              ><br /><span class="quiet"
                >{m?.code} · {many(a.due.sections, 'section')}{a.due.waiting
                  ? `, ${a.due.waiting} not there yet`
                  : ''}</span
              >
              {#each a.due.remarks as r (r)}<br /><span class="mind">{remarkWords[r]}</span>{/each}
            </td>
            <td class="fig">{a.due.pattern ? said(a.due) : 'real'}</td>
            <td class="fig"
              >{short(a.due.due)}<br /><span class="quiet">{clock(a.due.due)}</span></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="quiet">
      Move {taken.size ? many(taken.size, 'item') : 'all of these'}{alone && hand
        ? ''
        : ', in the draft of the master'}:
    </p>
    <div class="moves">
      <Act onclick={() => by(-7)}>A week earlier</Act>
      <Act onclick={() => by(-1)}>A day earlier</Act>
      <Act onclick={() => by(1)}>A day later</Act>
      <Act onclick={() => by(7)}>A week later</Act>
    </div>
    {#if hand}
      <label class="alone"
        ><input type="checkbox" bind:checked={alone} />for the {many(hand, 'section')} in hand alone</label
      >
    {/if}
  {/if}
  {#if moved}
    <p>
      {many(moved, 'move')} here; {moved === 1 ? 'it reaches' : 'they reach'} shells with a delivery.
      <button class="link" onclick={undo}>Take the last one back</button>
    </p>
  {/if}
  {#if own.length}
    <h3>
      {many(own.length, 'section')}
      {own.length === 1 ? 'keeps a date' : 'keep dates'} of their own
    </h3>
    <ul>
      {#each own.slice(0, 12) as o (o.section + o.title)}
        <li>
          <a class="link fig" href="/sections/{o.section}">{o.code}</a>
          {o.title}: {o.due ? `${short(o.due)} ${clock(o.due)}` : 'no date'}
        </li>
      {/each}
    </ul>
    {#if own.length > 12}<p class="quiet">{own.length - 12} more</p>{/if}
    <p class="quiet">They stay unless a delivery says otherwise.</p>
  {/if}
</div>

<style>
  h2 {
    margin-bottom: 2px;
  }
  h3 {
    font-weight: 650;
    margin-top: 14px;
    padding-top: 10px;
    border-top: 1px solid var(--line);
  }
  table {
    width: 100%;
    margin: 10px 0;
    font-size: 13px;
    line-height: 18px;
    border-collapse: collapse;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  td,
  th {
    padding: 4px 6px 4px 0;
    border-bottom: 1px solid var(--line);
    vertical-align: top;
  }
  td.fig {
    white-space: nowrap;
  }
  tr.look td:last-child {
    color: var(--mind);
  }
  .mind {
    color: var(--mind);
  }
  .alone {
    display: flex;
    gap: 6px;
    align-items: center;
    margin-bottom: 8px;
  }
  .moves {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
    margin: 6px 0 10px;
  }
</style>
