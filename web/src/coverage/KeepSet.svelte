<script lang="ts">
  import Act from '../frame/Act.svelte';
  import { sets } from './sets.svelte';
  import type { Filter } from './model';

  /** Keeps sections, or a filter, as a set under a name. */
  let {
    what,
    words,
    told,
  }: {
    what: () => { sections: string[] } | { filter: Filter };
    words: string;
    told: (said: string) => void;
  } = $props();
  let naming = $state(false);
  let name = $state('');

  async function keep(e: SubmitEvent) {
    e.preventDefault();
    try {
      await sets.keep(name, what());
      told(`Kept as “${name}”.`);
      naming = false;
      name = '';
    } catch (x) {
      told((x as Error).message);
    }
  }
</script>

{#if naming}
  <form class="keep" onsubmit={keep}>
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class="entry"
      aria-label="Name of the set"
      placeholder="for instance: evening classes"
      maxlength="100"
      required
      autofocus
      bind:value={name}
      onkeydown={(e) => {
        if (e.key !== 'Escape') return;
        e.stopPropagation();
        naming = false;
        told('');
      }}
    />
    <Act type="submit">Keep it</Act>
  </form>
{:else}
  <button type="button" class="link quiet" onclick={() => (naming = true)}>{words}</button>
{/if}

<style>
  .keep {
    display: flex;
    gap: 8px;
  }
  .keep input {
    width: 200px;
  }
</style>
