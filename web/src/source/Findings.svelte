<script lang="ts">
  /** A list of remarks: the first few at once, all of them on demand. */
  let {
    lines,
    none,
    say,
    mind = false,
  }: {
    /** Where and what. */
    lines: [string, string][];
    none: string;
    say: (n: number) => string;
    mind?: boolean;
  } = $props();
  const few = 6;
</script>

{#snippet list(some: [string, string][])}
  <ul class:mind>
    {#each some as [where, what], i (i)}
      <li>
        {#if where}<span class="fig">{where}</span>{/if}
        {what}
      </li>
    {/each}
  </ul>
{/snippet}

{#if !lines.length}
  {none}
{:else if mind && lines.length <= few}
  {@render list(lines)}
{:else}
  {#if mind}{@render list(lines.slice(0, few))}{/if}
  <details>
    <summary>{mind ? 'All ' : ''}{say(lines.length)}</summary>
    {@render list(lines)}
  </details>
{/if}

<style>
  summary {
    cursor: pointer;
  }
  .mind li {
    color: var(--mind);
  }
</style>
