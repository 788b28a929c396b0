<script lang="ts">
  import type { Schemas } from '../api/client';

  /** Lines that join what is the same thing in both editions; dashed where it is asked about. */
  let {
    pairs,
    olderAt,
    newerAt,
    from,
    to,
    height,
    selected,
  }: {
    pairs: readonly Schemas['PairView'][];
    olderAt: ReadonlyMap<string, number>;
    newerAt: ReadonlyMap<string, number>;
    /** The rows in sight. */
    from: number;
    to: number;
    height: number;
    selected?: string;
  } = $props();
  const width = 104;

  let seen = $derived(
    pairs.flatMap((p) => {
      const a = olderAt.get(p.older);
      const b = newerAt.get(p.newer);
      if (a === undefined || b === undefined) return [];
      if (Math.max(a, b) < from || Math.min(a, b) > to) return [];
      const [y, z] = [(a + 0.5) * height, (b + 0.5) * height];
      const d = `M6 ${y}C${width / 2} ${y} ${width / 2} ${z} ${width - 6} ${z}`;
      return [{ p, d, y, z }];
    }),
  );
  const tone = (p: Schemas['PairView']) =>
    p.certainty === 'DOUBTFUL'
      ? 'doubt'
      : p.newer === selected
        ? 'chosen'
        : p.changed
          ? 'changed'
          : '';
</script>

<svg {width} height="100%" aria-hidden="true">
  {#each seen as { p, d, y, z } (p.older)}
    <g class={tone(p)}>
      <path {d} />
      <circle cx="6" cy={y} r="2" />
      <circle cx={width - 6} cy={z} r="2" />
    </g>
  {/each}
</svg>

<style>
  svg {
    overflow: visible;
  }
  path {
    fill: none;
    stroke: var(--line);
    stroke-width: 1.5;
  }
  circle {
    fill: var(--line);
  }
  .changed path {
    stroke: var(--do);
  }
  .changed circle {
    fill: var(--do);
  }
  .doubt path {
    stroke: var(--mind-mark);
    stroke-dasharray: 4 3;
  }
  .doubt circle {
    fill: var(--mind-mark);
  }
  .chosen path {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .chosen circle {
    fill: var(--ink);
  }
</style>
