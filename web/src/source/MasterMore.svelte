<script lang="ts">
  import { Dropdown, DropdownItem } from 'flowbite-svelte';
  import Act from '../frame/Act.svelte';
  import { onEscape } from '../frame/escape.svelte';

  /** What is seldom done with a master or one of its versions as a whole. */
  let { lines }: { lines: [string, () => void][] } = $props();
  let open = $state(false);
  onEscape(() => open && !(open = false));
</script>

<span id="more-of-master"><Act onclick={() => {}}>More…</Act></span>
<Dropdown triggeredBy="#more-of-master" bind:isOpen={open} simple class="menu">
  {#each lines as [words, act] (words)}
    <DropdownItem class="menu-line" onclick={() => ((open = false), act())}>{words}</DropdownItem>
  {/each}
</Dropdown>
