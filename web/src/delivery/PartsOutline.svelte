<script lang="ts">
  import { along } from '../lists/along';
  import Rows from '../lists/Rows.svelte';
  import { figure } from '../marks/words';
  import Ticked from './Ticked.svelte';
  import type { Order } from './order';
  import { said, ticks, type Row, type Tick } from './ticks';

  /** The version in its order: what is brought, what comes along and why, what is left out. */
  let {
    rows,
    order,
    toggle,
    text,
  }: {
    rows: Row[];
    order: Order;
    toggle: (row: Row, tick: Tick) => void;
    text: string;
  } = $props();
  let ticked = $derived(ticks(rows));
  let wanted = $derived(text.trim().toLowerCase());
  let depths = $derived.by(() => {
    const all = new Map<string, number>();
    for (const r of rows) all.set(r.key, r.parent ? (all.get(r.parent) ?? 0) + 1 : 0);
    return all;
  });
  let seen = $derived.by(() => {
    if (!wanted) return rows;
    const parent = new Map(rows.map((r) => [r.key, r.parent]));
    const kept = new Set<string>();
    for (const r of rows)
      if (r.title.toLowerCase().includes(wanted))
        for (let k: string | undefined = r.key; k; k = parent.get(k)) kept.add(k);
    return rows.filter((r) => kept.has(r.key));
  });
  let at = $state(0);
  let list: { reveal: (i: number) => void; page: () => number };
  let here = $derived(Math.min(at, seen.length - 1));

  const tick = (r: Row): Tick => ticked.get(r.key) ?? 'off';
  const tickWords: Record<Tick, string> = {
    on: 'brought',
    some: 'partly brought',
    off: 'not brought',
    along: 'comes along',
  };

  function keys(e: KeyboardEvent) {
    const to = along(e.key, here, seen.length, list.page());
    if (to !== undefined) {
      at = to;
      list.reveal(to);
    } else if (e.key === ' ' && seen[here]) toggle(seen[here], tick(seen[here]));
    else return;
    e.preventDefault();
  }
</script>

<Rows
  rows={seen}
  height={25}
  role="tree"
  label="What is brought"
  tabindex={0}
  aria-multiselectable="true"
  aria-activedescendant={seen[here] ? 'part-' + seen[here].key : undefined}
  onkeydown={keys}
  key={(r, i) => r.key + (r.inVersion ? '' : i)}
  bind:this={list}
>
  {#snippet row(r: Row, i: number)}
    {@const t = tick(r)}
    <!-- svelte-ignore a11y_click_events_have_key_events -->
    <div
      id="part-{r.key}"
      class="r"
      class:m={r.kind === 'MODULE'}
      class:at={i === here}
      class:off={t === 'off'}
      role="treeitem"
      tabindex="-1"
      aria-level={(depths.get(r.key) ?? 0) + 1}
      aria-selected={t === 'on' || t === 'along'}
      aria-label="{r.title}, {tickWords[t]}{r.kind === 'MODULE' ? '' : ', ' + said(r, order)}"
      onclick={() => ((at = i), r.inVersion && toggle(r, t))}
    >
      <Ticked tick={t} />
      <span class="t cut" style="padding-left:{(depths.get(r.key) ?? 0) * 16}px" title={r.title}
        >{r.title}</span
      >
      <span class="s cut" class:mind={r.missed} title={said(r, order)}
        >{r.kind === 'MODULE' ? '' : said(r, order)}</span
      >
      <span class="fig n">{r.kind !== 'MODULE' && r.sections ? figure(r.sections) : ''}</span>
    </div>
  {/snippet}
</Rows>
{#if wanted && !seen.length}<p class="quiet none">Nothing here is called that.</p>{/if}

<style>
  .r {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) minmax(0, 0.72fr) 48px;
    align-items: center;
    height: 25px;
    padding: 0 14px 0 16px;
    font-size: 13.5px;
    cursor: pointer;
  }
  .r.m {
    border-top: 1px solid var(--line);
  }
  .r.m .t {
    font-weight: 650;
  }
  .r.off .t {
    color: var(--ink-3);
  }
  .r.at {
    background: var(--do-soft);
  }
  .r.at .t {
    color: var(--ink);
  }
  .s {
    color: var(--ink-2);
    font-size: 12px;
  }
  .s.mind {
    color: var(--mind);
  }
  .n {
    text-align: right;
    color: var(--ink-2);
  }
  .none {
    padding: 12px 16px;
  }
</style>
