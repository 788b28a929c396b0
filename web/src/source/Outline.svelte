<script lang="ts">
  import type { StepKind } from '../api/client';
  import { along } from '../lists/along';
  import Rows from '../lists/Rows.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import { kind } from '../marks/words';
  import { dropped, lines, step, type Line, type Node, type Target } from './tree';

  let {
    nodes,
    selected,
    select,
    marks = new Map(),
    move,
    remove,
    rename,
    chosen = $bindable(new Set()),
    cut = new Set(),
  }: {
    nodes: Node[];
    selected: string;
    select: (key: string) => void;
    /** Items that changed since the newest version, with the kind of change. */
    marks?: ReadonlyMap<string, StepKind>;
    move?: (keys: string[], to: Target) => void;
    remove?: (keys: string[]) => void;
    rename?: (key: string, title: string) => void;
    /** Items chosen together, besides the one looked at. */
    chosen?: ReadonlySet<string>;
    /** Items that wait to be put elsewhere. */
    cut?: ReadonlySet<string>;
  } = $props();
  let naming = $state('');

  /** The chosen ones in their order, or the one looked at. */
  function meant(key: string): string[] {
    return chosen.size ? nodes.filter((n) => chosen.has(n.key)).map((n) => n.key) : [key];
  }

  function toggle(key: string) {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    chosen = next;
  }

  function range(from: number, to: number) {
    const next = new Set(chosen);
    for (let i = Math.min(from, to); i <= Math.max(from, to); i++)
      if (seen[i]) next.add(seen[i].node.key);
    chosen = next;
  }

  function clicked(e: MouseEvent, key: string) {
    if (move && (e.ctrlKey || e.metaKey)) toggle(key);
    else if (move && e.shiftKey) {
      const at = (k: string) => seen.findIndex((l) => l.node.key === k);
      range(at(selected), at(key));
    } else {
      chosen = new Set();
      select(key);
    }
  }

  function named(e: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    e.stopPropagation();
    if (e.key === 'Escape') naming = '';
    if (e.key !== 'Enter') return;
    const title = e.currentTarget.value.trim();
    if (title) rename!(naming, title);
    naming = '';
  }

  let closed = $state.raw<ReadonlySet<string>>(new Set());
  let text = $state('');
  let seen = $derived(lines(nodes, closed, text));
  let rows: { reveal: (i: number) => void; page: () => number };
  let dragged = $state('');
  let over = $state('');

  // Long outlines begin folded: the modules are what one looks for first.
  let folded = false;
  $effect.pre(() => {
    if (!folded && nodes.length > 30) {
      folded = true;
      const all = nodes.filter((n) => n.kind === 'MODULE').map((n) => n.key);
      let up = nodes.find((n) => n.key === selected)?.parent;
      const open = new Set<string>();
      while (up) {
        open.add(up);
        up = nodes.find((n) => n.key === up)?.parent;
      }
      closed = new Set(all.filter((k) => !open.has(k) && k !== all[0]));
    }
  });

  function fold(key: string, shut: boolean) {
    const next = new Set(closed);
    if (shut) next.add(key);
    else next.delete(key);
    closed = next;
  }

  function keys(e: KeyboardEvent) {
    const i = seen.findIndex((l) => l.node.key === selected);
    const node = seen[i]?.node;
    const to = along(e.key, i, seen.length, rows.page());
    if (move && node && e.altKey && e.key.startsWith('Arrow')) {
      const way = (
        { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' } as const
      )[e.key as 'ArrowUp'];
      const target = step(nodes, node.key, way);
      if (target) move([node.key], target);
    } else if (to !== undefined) {
      if (move && e.shiftKey) range(i, to);
      if (seen[to]) {
        select(seen[to].node.key);
        rows.reveal(to);
      }
    } else if (node?.kind === 'MODULE' && e.key === 'ArrowRight') fold(node.key, false);
    else if (node?.kind === 'MODULE' && e.key === 'ArrowLeft') fold(node.key, true);
    else if (node?.parent && e.key === 'ArrowLeft') select(node.parent);
    else if (remove && node && e.key === 'Delete') remove(meant(node.key));
    else if (rename && node && e.key === 'F2') naming = node.key;
    else if (move && node && e.key === ' ') toggle(node.key);
    else return;
    e.preventDefault();
  }

  function drop(on: string) {
    if (move && dragged) {
      const to = dropped(nodes, dragged, on);
      const keys = chosen.has(dragged) ? meant(dragged) : [dragged];
      if (to && keys.every((k) => dropped(nodes, k, on))) move(keys, to);
    }
    dragged = over = '';
  }
</script>

<div class="out">
  <div class="find">
    <input
      class="entry"
      type="search"
      placeholder="Find in this outline"
      aria-label="Find in this outline"
      bind:value={text}
    />
  </div>

  <div class="tree">
    <Rows
      rows={seen}
      height={26}
      role="tree"
      label="Outline"
      tabindex={0}
      aria-activedescendant={selected ? 'node-' + selected : undefined}
      onkeydown={keys}
      bind:this={rows}
    >
      {#snippet row(line: Line)}
        {@const n = line.node}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          id="node-{n.key}"
          class="n"
          class:m={n.kind === 'MODULE'}
          class:at={n.key === selected}
          class:drop={over === n.key}
          class:chosen={chosen.has(n.key)}
          class:cut={cut.has(n.key)}
          role="treeitem"
          tabindex="-1"
          aria-level={line.depth + 1}
          aria-selected={n.key === selected || chosen.has(n.key)}
          aria-expanded={n.kind === 'MODULE' ? !closed.has(n.key) : undefined}
          style="padding-left:{14 + line.depth * 20}px"
          draggable={!!move}
          ondragstart={() => (dragged = n.key)}
          ondragover={(e) => (e.preventDefault(), (over = n.key))}
          ondragend={() => (dragged = over = '')}
          ondrop={() => drop(n.key)}
          onclick={(e) => clicked(e, n.key)}
          ondblclick={() => rename && (naming = n.key)}
        >
          <span class="t cut">
            {#if n.kind === 'MODULE'}
              <button
                class="fold"
                tabindex="-1"
                aria-label="{closed.has(n.key) ? 'Open' : 'Close'} {n.title}"
                onclick={(e) => (e.stopPropagation(), fold(n.key, !closed.has(n.key)))}
                >{closed.has(n.key) ? '▸' : '▾'}</button
              >
            {/if}
            {#if naming === n.key}
              <!-- svelte-ignore a11y_autofocus -->
              <input
                class="entry name"
                aria-label="Title of {n.title}"
                value={n.title}
                maxlength="400"
                autofocus
                onkeydown={named}
                onblur={() => (naming = '')}
                onclick={(e) => e.stopPropagation()}
              />
            {:else}
              <span class:hid={!n.shown}>{n.title}</span>
            {/if}
            {#if n.kind !== 'MODULE'}
              <span class="kind"
                >{kind(n.kind)}{n.rule === 'ADAPTABLE'
                  ? ''
                  : ' · ' + n.rule.toLowerCase()}{n.instructorsOnly
                  ? ' · instructors only'
                  : n.shown
                    ? ''
                    : ' · hidden'}{n.nobody ? ' · stays here' : ''}{n.goesWith
                  ? ' · tied'
                  : ''}</span
              >
            {/if}
          </span>
          <span class="mark">
            {#if marks.has(n.key)}<StepMark kind={marks.get(n.key)!} size={11} />{/if}
          </span>
          <span class="faint fig num">{n.kind === 'MODULE' ? line.below : ''}</span>
        </div>
      {/snippet}
    </Rows>
  </div>
  {#if text && !seen.length}<p class="quiet none">Nothing here is called that.</p>{/if}
</div>

<style>
  .out {
    display: flex;
    flex-direction: column;
    min-height: 0;
    height: 100%;
  }
  .find {
    padding: 10px 12px 6px;
  }
  .tree {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  .tree :global(.rows:focus-visible) {
    outline: none;
  }
  .tree :global(.rows:focus-visible .n.at) {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .n {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 20px 34px;
    align-items: center;
    height: 26px;
    padding: 0 12px 0 14px;
    font-size: 13.5px;
    cursor: default;
  }
  .n.m .t {
    font-weight: 650;
  }
  .n.at {
    background: var(--do-soft);
    box-shadow: inset 3px 0 0 var(--do);
  }
  .n.chosen {
    background: var(--mind-soft);
  }
  .n.cut {
    opacity: 0.55;
  }
  .name {
    height: 22px;
    width: 78%;
  }
  .n.drop {
    box-shadow: inset 0 2px 0 var(--do);
  }
  .kind {
    color: var(--ink-3);
    font-size: 12px;
    font-weight: 400;
    margin-left: 8px;
  }
  .n.at .kind {
    color: var(--ink-2);
  }
  .hid {
    color: var(--ink-3);
    font-style: italic;
  }
  .fold {
    width: 14px;
    margin-left: -2px;
    color: var(--ink-3);
    cursor: pointer;
  }
  .num {
    text-align: right;
  }
  .none {
    padding: 12px;
  }
</style>
