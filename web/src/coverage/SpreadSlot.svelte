<script lang="ts">
  import Paths from '../marks/Paths.svelte';
  import { field, standingPaths } from '../marks/standingShapes';
  import { hand } from '../frame/hand.svelte';
  import { standWords, type Stand } from './model';
  import { Lines } from '../lists/lines';

  /** The marks of one column of a band, all drawn at once; only the chosen one is an element. */
  let {
    slot,
    size,
    here,
    cursor,
    draws,
  }: {
    slot: Stand[];
    size: number;
    /** Of the master whose sections are in hand. */
    here: boolean;
    /** Place of the chosen mark; -1 if it is elsewhere. */
    cursor: number;
    /** Told of the place and order of the marks whenever they are drawn. */
    draws: (lines: Lines, box: HTMLElement) => void;
  } = $props();

  let room = $state(0);
  let laid = $derived(new Lines(slot.length, size, room, field.width / field.height));
  let box: HTMLElement;
  $effect(() => draws(laid, box));
  let scale = $derived(size / field.height);
  let paths = $derived(
    standingPaths(
      slot.map((s) => s.look),
      (n) => {
        const { x, y } = laid.at(n);
        return { x: x / scale, y: y / scale };
      },
    ),
  );
  let held = $derived(
    here ? slot.map((s, n) => (hand.has(s.section.id) ? n : -1)).filter((n) => n >= 0) : [],
  );
  let grounds = $derived(
    held.length === slot.length
      ? ''
      : held
          .map((n) => {
            const { x, y } = laid.at(n);
            return `M${x + 0.5} ${y + 0.5}h${laid.width - 1}v${laid.height - 2}h${1 - laid.width}z`;
          })
          .join(''),
  );
  let hover = $state('');
  function point(e: PointerEvent) {
    const at = (e.currentTarget as Element).getBoundingClientRect();
    const n = laid.under(e.clientX - at.left, e.clientY - at.top);
    hover = n === undefined ? '' : standWords(slot[n]);
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
    {#if grounds}<path d={grounds} fill="var(--do-soft)" stroke="var(--do)" stroke-width="1" />{/if}
    <g transform="scale({scale})"><Paths of={paths} /></g>
  </svg>
  {#if cursor >= 0 && slot[cursor]}
    {@const { x, y } = laid.at(cursor)}
    <span
      id="spread-at"
      class="cursor"
      role="img"
      aria-label="{standWords(slot[cursor])}{here && hand.has(slot[cursor].section.id)
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
  svg {
    display: block;
  }
  .cursor {
    position: absolute;
    pointer-events: none;
    border-radius: 2px;
  }
  :global(.bands:focus-visible) .cursor {
    outline: 2px solid var(--do);
    outline-offset: 0;
  }
</style>
