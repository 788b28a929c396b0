<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import Act from '../frame/Act.svelte';
  import { many } from '../marks/words';
  import type { Node } from './tree';

  /**
   * @param below items that stand in it
   */
  let { of, below, yes, no }: { of: Node | null; below: number; yes: () => void; no: () => void } =
    $props();
</script>

<Modal open={of !== null} onclose={no} size="xs" title="Take it out of the draft?" class="ask">
  <p>
    {of?.title}{below ? ` and what stands in it (${many(below, 'item')})` : ''} leaves the draft. Frozen
    versions keep it; the next version retires it in the sections.
  </p>
  <div class="asks">
    <Act main onclick={yes}>Take it out</Act>
    <Act onclick={no}>Keep it</Act>
  </div>
</Modal>

<style>
  .asks {
    display: flex;
    gap: 8px;
    padding-top: 12px;
  }
  :global(dialog.ask) {
    background: var(--paper);
    border: 1px solid var(--line);
    border-radius: var(--r);
    color: var(--ink);
  }
</style>
