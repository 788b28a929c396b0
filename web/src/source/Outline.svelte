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
  }: {
    nodes: Node[];
    selected: string;
    select: (key: string) => void;
    /** Items that changed since the newest version, with the kind of change. */
    marks?: ReadonlyMap<string, StepKind>;
    move?: (key: string, to: Target) => void;
    remove?: (key: string) => void;
  } = $props();

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
      if (target) move(node.key, target);
    } else if (to !== undefined) {
      if (seen[to]) {
        select(seen[to].node.key);
        rows.reveal(to);
      }
    } else if (node?.kind === 'MODULE' && e.key === 'ArrowRight') fold(node.key, false);
    else if (node?.kind === 'MODULE' && e.key === 'ArrowLeft') fold(node.key, true);
    else if (node?.parent && e.key === 'ArrowLeft') select(node.parent);
    else if (remove && node && e.key === 'Delete') remove(node.key);
    else return;
    e.preventDefault();
  }

  function drop(on: string) {
    if (move && dragged) {
      const to = dropped(nodes, dragged, on);
      if (to) move(dragged, to);
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

  <div
    class="tree"
    role="tree"
    aria-label="Outline"
    tabindex="0"
    aria-activedescendant={selected ? 'node-' + selected : undefined}
    onkeydown={keys}
  >
    <Rows rows={seen} height={26} role="presentation" bind:this={rows}>
      {#snippet row(line: Line)}
        {@const n = line.node}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          id="node-{n.key}"
          class="n"
          class:m={n.kind === 'MODULE'}
          class:at={n.key === selected}
          class:drop={over === n.key}
          role="treeitem"
          tabindex="-1"
          aria-level={line.depth + 1}
          aria-selected={n.key === selected}
          aria-expanded={n.kind === 'MODULE' ? !closed.has(n.key) : undefined}
          style="padding-left:{14 + line.depth * 20}px"
          draggable={!!move}
          ondragstart={() => (dragged = n.key)}
          ondragover={(e) => (e.preventDefault(), (over = n.key))}
          ondragend={() => (dragged = over = '')}
          ondrop={() => drop(n.key)}
          onclick={() => select(n.key)}
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
            <span class:hid={!n.shown}>{n.title}</span>
            {#if n.kind !== 'MODULE'}
              <span class="kind"
                >{kind(n.kind)}{n.rule === 'ADAPTABLE'
                  ? ''
                  : ' · ' + n.rule.toLowerCase()}{n.instructorsOnly
                  ? ' · instructors only'
                  : n.shown
                    ? ''
                    : ' · hidden'}</span
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
  .tree:focus-visible {
    outline: none;
  }
  .tree:focus-visible .n.at {
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
