<script lang="ts">
  import type { StepKind } from '../api/client';
  import { path, stepShape } from './stepShapes';

  let { kind, size = 12 }: { kind: StepKind; size?: number } = $props();
</script>

<svg viewBox="0 0 12 12" width={size} height={size} aria-hidden="true">
  {#each stepShape(kind) as layer (layer)}
    <path
      d={path(layer)}
      fill={layer.width ? 'none' : layer.colour}
      stroke={layer.width ? layer.colour : 'none'}
      stroke-width={layer.width}
    />
  {/each}
</svg>
