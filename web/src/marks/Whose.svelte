<script lang="ts">
  /** A text in which the words of either side are marked as theirs. */
  let { runs }: { runs: readonly { whose: 'BASE' | 'OURS' | 'THEIRS'; text: string }[] } = $props();
</script>

{#each runs as r, i (i)}{#if r.whose === 'BASE'}{r.text}{:else}<mark class={r.whose.toLowerCase()}
      >{r.text}</mark
    >{/if}{/each}

<style>
  mark {
    color: inherit;
    background: var(--do-soft);
    border-bottom: 1.5px solid var(--do);
  }
  mark.ours {
    background: var(--own-soft);
    border-color: var(--own);
  }
</style>
