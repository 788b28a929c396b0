<script lang="ts">
  let { kind, size = 12 }: { kind: string; size?: number } = $props();
</script>

<svg viewBox="0 0 12 12" width={size} height={size} aria-hidden="true">
  {#if kind === 'ADD'}
    <path d="M6 2v8M2 6h8" stroke="var(--do)" stroke-width="2.2" />
  {:else if kind === 'UPDATE'}
    <path d="M6 1.8L10.6 9.6H1.4z" fill="var(--do)" />
  {:else if kind === 'KEEP'}
    <path d="M6 1.2L10.8 6 6 10.8 1.2 6z" fill="none" stroke="var(--own)" stroke-width="1.5" />
  {:else if kind === 'CLASH'}
    <path d="M.8 2v8l4.6-4zM11.2 2v8L6.6 6z" fill="var(--mind-mark)" />
  {:else if kind === 'TWIN'}
    <circle cx="4.4" cy="6" r="3.3" fill="none" stroke="var(--mind-mark)" stroke-width="1.4" />
    <circle cx="7.8" cy="6" r="3.3" fill="none" stroke="var(--mind-mark)" stroke-width="1.4" />
  {:else if kind === 'RETIRE'}
    <path d="M2 6h8" stroke="var(--harm)" stroke-width="2.2" />
  {:else if kind === 'BLOCKED'}
    <path d="M2 2h8v8H2z" fill="var(--harm)" />
    <path d="M3.6 6h4.8" stroke="var(--raise)" stroke-width="1.6" />
  {:else}
    <circle cx="6" cy="6" r="1.1" fill="var(--ink-3)" />
  {/if}
</svg>
