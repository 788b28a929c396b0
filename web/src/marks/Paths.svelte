<script lang="ts">
  import type { Paint } from './standingShapes';

  let { of }: { of: readonly { paint: Paint; d: string }[] } = $props();
</script>

{#each of as { paint, d } (paint)}
  <path
    {d}
    fill={paint.fill}
    stroke={paint.stroke}
    stroke-width={paint.width}
    stroke-dasharray={paint.dash}
    stroke-linecap={paint.round ? 'round' : undefined}
  />
{/each}
