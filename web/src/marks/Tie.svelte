<script lang="ts">
  import Paths from './Paths.svelte';
  import { tiePaths, type TieKind } from './tieShapes';

  /** How far a tool link is. */
  let { kind, size = 14 }: { kind: TieKind; size?: number } = $props();
  let parts = $derived(tiePaths(kind, 1, () => ({ x: 0, y: 0 })));
</script>

<svg viewBox="0 0 16 16" width={size} height={size} aria-hidden="true"><Paths of={parts} /></svg>
