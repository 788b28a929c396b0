<script lang="ts">
  import Paths from '../marks/Paths.svelte';
  import { tiePaths, type TieKind } from '../marks/tieShapes';
  import { hand } from '../frame/hand.svelte';
  import { Lines } from '../lists/lines';
  import { reasonWords, type Cell } from './tools';

  /** The marks of one column of a host, all drawn at once; only the chosen one is an element. */
  let {
    slot,
    kind,
    here,
    cursor,
    draws,
  }: {
    slot: Cell[];
    kind: TieKind;
    /** Of the host whose sections are in hand. */
    here: boolean;
    /** Place of the chosen mark; -1 if it is elsewhere. */
    cursor: number;
    /** Told of the place and order of the marks whenever they are drawn. */
    draws: (lines: Lines, box: HTMLElement) => void;
  } = $props();

  let room = $state(0);
  let size = $derived(slot.length > 70 ? 11 : slot.length > 40 ? 12.5 : 14);
  let laid = $derived(new Lines(slot.length, size, room, 1.25));
  let box: HTMLElement;
  $effect(() => draws(laid, box));
  let scale = $derived(size / 16);
  let paths = $derived(
    tiePaths(kind, slot.length, (n) => {
      const { x, y } = laid.at(n);
      return { x: x / scale, y: y / scale };
    }),
  );
  let grounds = $derived(
    (here ? slot : [])
      .map((c, n) => {
        if (!hand.has(c.section.id)) return '';
        const { x, y } = laid.at(n);
        return `M${x - 1} ${y}h${laid.width}v${laid.height - 1}h${-laid.width}z`;
      })
      .join(''),
  );
  let hover = $state('');
  const words = (c: Cell) =>
    `${c.section.code}: ${reasonWords[c.state.reason]}${c.writing === 1 ? ', being written' : ''}`;
  function point(e: PointerEvent) {
    const at = (e.currentTarget as Element).getBoundingClientRect();
    const n = laid.under(e.clientX - at.left, e.clientY - at.top);
    hover = n === undefined ? '' : words(slot[n]);
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="d"
  bind:this={box}
  bind:clientWidth={room}
  style="height:{Math.max(0, laid.down * laid.height - 1)}px"
  title={hover || undefined}
  onpointermove={point}
>
  <svg
    width={laid.across * laid.width}
    height={Math.max(0, laid.down * laid.height - 1)}
    aria-hidden="true"
  >
    {#if grounds}<path d={grounds} fill="var(--do-soft)" />{/if}
    <g transform="scale({scale})"><Paths of={paths} /></g>
  </svg>
  {#if cursor >= 0 && slot[cursor]}
    {@const { x, y } = laid.at(cursor)}
    <span
      id="host-at"
      class="cursor"
      role="img"
      aria-label="{words(slot[cursor])}{here && hand.has(slot[cursor].section.id)
        ? ', in hand'
        : ''}"
      style="left:{x}px;top:{y}px;width:{laid.width}px;height:{laid.height}px"
    ></span>
  {/if}
</div>

<style>
  .d {
    position: relative;
    cursor: pointer;
    min-width: 0;
  }
  .cursor {
    position: absolute;
    pointer-events: none;
    border-radius: 2px;
  }
  :global(.hosts:focus-visible) .cursor {
    outline: 2px solid var(--do);
    outline-offset: 0;
  }
</style>
