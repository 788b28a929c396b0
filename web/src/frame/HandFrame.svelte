<script lang="ts">
  import type { Snippet } from 'svelte';

  let {
    title,
    words = '',
    children,
  }: { title: string; words?: string; children?: Snippet } = $props();
</script>

<section class="hand" aria-label="Hand">
  <b>{title}</b>
  <span class="quiet cut">{words}</span>
  <span class="can">{@render children?.()}</span>
</section>

<style>
  .hand {
    position: fixed;
    left: 0;
    right: 0;
    bottom: 0;
    display: flex;
    align-items: center;
    gap: 16px;
    padding: 0 16px;
    height: 52px;
    background: var(--paper);
    border-top: 2px solid var(--do);
    white-space: nowrap;
    z-index: 20;
  }
  .can {
    margin-left: auto;
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
