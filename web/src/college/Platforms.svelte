<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import { many } from '../lib/words';
  import AddPlatform from './AddPlatform.svelte';

  let {
    platforms,
    admin,
    load,
  }: { platforms: Schemas['PlatformList']; admin: boolean; load: () => Promise<void> } = $props();
  let said = $state('');
  let busy = $state('');
  let trouble = $state.raw<unknown>(null);
  let without = $derived(platforms.withoutShell);

  async function look(id: string) {
    busy = id;
    said = '';
    try {
      const found = await got(api.POST('/api/platforms/{id}/ties', { params: { path: { id } } }));
      const fewer = without - found.withoutShell;
      said = fewer
        ? `${many(fewer, 'section')} found ${fewer === 1 ? 'its' : 'their'} shell.`
        : 'No new shell belongs to a section.';
      trouble = null;
      await load();
    } catch (e) {
      trouble = e;
    } finally {
      busy = '';
    }
  }
</script>

{#each platforms.platforms as p (p.id)}
  <p class="platform">
    <b>{p.name}</b> <span class="fig quiet">{p.address}</span>
    <span class="quiet">holds {many(p.sections, 'shell')}</span>
    <Act disabled={!!busy} onclick={() => look(p.id)}
      >{busy === p.id ? 'Looking …' : 'Look for new shells'}<span class="sr-only">
        on {p.name}</span
      ></Act
    >
  </p>
{:else}
  <p class="quiet">
    No platform yet{admin ? '' : '; an administrator names it'}. Without one nothing can be
    delivered.
  </p>
{/each}
{#if said}<p role="status">{said}</p>{/if}
<Trouble of={trouble} />
{#if without}
  <details>
    <summary>
      {many(without, 'section')}
      {without === 1 ? 'has' : 'have'} no shell
    </summary>
    <p class="quiet">
      A shell belongs to a section when its id is the section’s sourcedId. Have them made on the
      platform under these ids, then look for new shells.
    </p>
    <pre class="fig">{platforms.unheld
        .map((u) => `${u.sourcedId}, ${u.title}`)
        .join('\n')}{without > platforms.unheld.length
        ? `\n… and ${without - platforms.unheld.length} more`
        : ''}</pre>
  </details>
{/if}
{#if admin}<AddPlatform done={load} />{/if}

<style>
  .platform {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  summary {
    cursor: pointer;
  }
  pre {
    max-height: 200px;
    overflow: auto;
    padding: 6px 10px;
    border: 1px solid var(--line);
    border-radius: var(--r);
    background: var(--raise);
  }
</style>
