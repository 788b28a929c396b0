<script lang="ts">
  /** How much of something is done. */
  let { done, of }: { done: number; of: number } = $props();
</script>

<svg viewBox="0 0 18 18" width="18" height="18" aria-hidden="true">
  <circle cx="9" cy="9" r="6.5" fill="none" stroke="var(--line)" stroke-width="3" />
  <circle
    cx="9"
    cy="9"
    r="6.5"
    fill="none"
    stroke="var(--do)"
    stroke-width="3"
    pathLength="100"
    stroke-dasharray="{of ? (100 * done) / of : 0} 100"
    transform="rotate(-90 9 9)"
  />
</svg>
