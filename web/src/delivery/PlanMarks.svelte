<script lang="ts">
  import { marks, type Picture, type Sight } from './plan';

  /** The marks in sight, drawn as one path for each colour of each kind. */
  let { pic, sight, width, height }: { pic: Picture; sight: Sight; width: number; height: number } =
    $props();
  let drawn = $derived(marks(pic, sight, width, height));
</script>

<svg
  aria-hidden="true"
  width={(sight.toCol - sight.fromCol) * width}
  height={(sight.toRow - sight.fromRow) * height}
>
  {#each drawn as { layer, d } (layer)}
    <path
      {d}
      fill={layer.width ? 'none' : layer.colour}
      stroke={layer.width ? layer.colour : 'none'}
      stroke-width={layer.width}
    />
  {/each}
</svg>
