<script lang="ts">
  /** Disc: how much of the master is there. Barbs: versions behind. Diamond: changed here. */
  let {
    share = 1,
    behind = 0,
    changed = false,
    never = false,
    failed = false,
    size = 16,
  }: {
    share?: number;
    behind?: number;
    changed?: boolean;
    never?: boolean;
    failed?: boolean;
    size?: number;
  } = $props();
  const r = 4.2;
  const cx = 7;
  const cy = 11;
  let ink = $derived(failed ? 'var(--harm)' : behind ? 'var(--mind-mark)' : 'var(--calm)');
  let pie = $derived.by(() => {
    const a = share * 2 * Math.PI;
    return `M${cx} ${cy}V${cy - r}A${r} ${r} 0 ${share > 0.5 ? 1 : 0} 1 ${cx + r * Math.sin(a)} ${cy - r * Math.cos(a)}Z`;
  });
</script>

<svg viewBox="0 0 20 18" width={(size * 20) / 18} height={size} aria-hidden="true">
  {#if never}
    <circle
      {cx}
      {cy}
      {r}
      fill="none"
      stroke="var(--ink-3)"
      stroke-width="1.2"
      stroke-dasharray="1.6 1.5"
    />
  {:else}
    <circle {cx} {cy} {r} fill={share >= 1 ? ink : 'none'} stroke={ink} stroke-width="1.4" />
    {#if share > 0 && share < 1}<path d={pie} fill={ink} />{/if}
    {#if behind}
      <path d="M{cx} {cy - r}V.6" stroke={ink} stroke-width="1.4" fill="none" />
      {#each Array.from({ length: Math.min(behind, 3) }, (_, i) => i) as i (i)}
        <path d="M{cx} {1.3 + i * 2.5}h4.6" stroke={ink} stroke-width="1.3" />
      {/each}
    {/if}
  {/if}
  {#if failed}
    <path
      d="M{cx - 5.5} {cy + 5.5}L{cx + 5.5} {cy - 5.5}"
      stroke="var(--harm)"
      stroke-width="1.6"
    />
  {/if}
  {#if changed}
    <path
      d="M{cx + 5.2} {cy + 0.4}l3 3-3 3-3-3z"
      fill="var(--own)"
      stroke="var(--paper)"
      stroke-width="1"
    />
  {/if}
</svg>
