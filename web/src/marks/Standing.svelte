<script lang="ts">
  import Paths from './Paths.svelte';
  import { field, standingParts, type Look } from './standingShapes';

  let { size = 16, ...look }: Look & { size?: number } = $props();
  let parts = $derived(standingParts(look));
</script>

<svg
  viewBox="0 0 {field.width} {field.height}"
  width={(size * field.width) / field.height}
  height={size}
  aria-hidden="true"
>
  <Paths of={parts} />
</svg>
