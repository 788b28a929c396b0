<script lang="ts">
  import type { Schemas } from '../api/client';
  import { kind, size } from '../marks/words';

  /** What an item is beside its text: file, questions, points, address. */
  let { item, page }: { item: Schemas['ItemView']; page: string } = $props();
</script>

{#if item.html || item.questions !== undefined || item.attached.length}
  <!-- Scripts are let through only where a page shows frames: the page's own policy names no source
       of scripts, and what it frames stands in a sandbox of its own. -->
  <iframe
    title="{item.questions === undefined ? 'As students see it' : 'Questions'}: {item.title}"
    src={page}
    sandbox="allow-popups allow-same-origin allow-downloads{item.framed
      ? ' allow-scripts allow-forms'
      : ''}"
  ></iframe>
{:else}
  <div class="plain">
    <h2>{item.title}</h2>
    {#if item.kind === 'MODULE'}
      <p class="quiet">A module: it holds the items below it.</p>
    {:else if item.address}
      <p>Leads to <span class="fig">{item.address}</span></p>
    {:else if item.file}
      <p>
        <a
          class="link"
          href="/api/files/{item.file.sha256}/{encodeURIComponent(item.file.name ?? 'file')}"
          download>{item.file.name}</a
        >
        <span class="quiet">{size(item.file.size ?? 0)}</span>
      </p>
    {:else}
      <p class="quiet">This {kind(item.kind)} has no text yet.</p>
    {/if}
  </div>
{/if}

<style>
  iframe {
    width: 100%;
    height: 100%;
    border: 0;
    background: #fff;
  }
  .plain {
    padding: 22px 36px;
    background: var(--raise);
    height: 100%;
    display: grid;
    gap: 8px;
    align-content: start;
  }
</style>
