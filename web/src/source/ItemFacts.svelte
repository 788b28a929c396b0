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
    {:else if item.criteria.length}
      <table>
        <tbody>
          {#each item.criteria as c (c.text)}
            <tr><td>{c.text}</td><td class="fig">{c.points}</td></tr>
          {/each}
        </tbody>
      </table>
    {:else if item.groups.length}
      <ul>
        {#each item.groups as g (g)}<li>{g}</li>{/each}
      </ul>
    {:else if item.entries.length}
      <ol>
        {#each item.entries as e, i (i)}
          <li>
            {e.label}
            <span class="quiet"
              >{e.value?.startsWith('zref:') ? 'an item of this master' : e.value}</span
            >
          </li>
        {/each}
      </ol>
    {:else if item.kind === 'GRADE_CATEGORY'}
      <p>{item.weight ? `${item.weight} percent of the grade` : 'It has no weight yet.'}</p>
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
  td {
    padding: 3px 16px 3px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  ol {
    list-style: decimal;
    padding-left: 20px;
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
