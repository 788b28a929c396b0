<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import { keyList } from './keys.svelte';

  const always: [string, string][] = [
    ['/', 'Search everything'],
    ['?', 'These keys'],
    ['Esc', 'Back, close'],
  ];
  let open = $state(false);

  function keys(e: KeyboardEvent) {
    const typing = (e.target as Element).closest?.('input, textarea, select');
    if (e.key === '?' && !typing) open = true;
  }
</script>

<svelte:window onkeydown={keys} />
<Modal bind:open title="Keys of this page" size="xs" class="keys" aria-label="Keys of this page">
  <dl>
    {#each [...keyList.of, ...always] as [key, what] (key)}
      <dt><kbd>{key}</kbd></dt>
      <dd>{what}</dd>
    {/each}
  </dl>
</Modal>

<style>
  dl {
    display: grid;
    grid-template-columns: 110px 1fr;
    row-gap: 6px;
    color: var(--ink);
  }
  :global(dialog.keys) {
    background: var(--paper);
    border: 1px solid var(--line);
    border-radius: var(--r);
    color: var(--ink);
  }
</style>
