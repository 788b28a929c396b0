<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { many } from '../marks/words';
  import AddPlatform from './AddPlatform.svelte';
  import SheetWords from './SheetWords.svelte';

  let {
    platforms,
    admin,
    load,
  }: { platforms: Schemas['PlatformList']; admin: boolean; load: () => Promise<void> } = $props();
  let said = $state('');
  let busy = $state('');
  let trouble = $state.raw<unknown>(null);
  let open = $state('');
  /** The platform whose sheet is worded. */
  let wording = $state('');
  let token = $state('');
  let ending = $state(false);
  let without = $derived(platforms.withoutShell);

  async function act(call: () => Promise<unknown>, words: string) {
    said = '';
    try {
      await call();
      trouble = null;
      said = words;
      open = token = '';
      await load();
    } catch (e) {
      trouble = e;
    }
  }

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

  onEscape(() => {
    if (!open) return false;
    open = '';
    return true;
  });
</script>

{#each platforms.platforms as p (p.id)}
  <p class="platform">
    <b>{p.name}</b>
    <span class="quiet" class:fig={p.address}
      >{p.address ?? 'without an interface: by packages'}</span
    >
    <span class="quiet">holds {many(p.sections, 'shell')}</span>
    <Act disabled={!!busy} onclick={() => look(p.id)}
      >{busy === p.id ? 'Looking …' : 'Look for new shells'}<span class="sr-only">
        on {p.name}</span
      ></Act
    >
    {#if !p.address}
      <button
        class="link"
        aria-expanded={wording === p.id}
        onclick={() => (wording = wording === p.id ? '' : p.id)}>Word its sheet</button
      >
    {/if}
    {#if admin}
      <button
        class="link"
        aria-expanded={open === p.id}
        onclick={() => ((open = open === p.id ? '' : p.id), (token = ''), (ending = false))}
        >{p.address ? 'Renew its token or end it' : 'End it'}</button
      >
    {/if}
  </p>
  {#if wording === p.id}<SheetWords id={p.id} name={p.name} />{/if}
  {#if open === p.id}
    <form
      class="more"
      onsubmit={(e) => {
        e.preventDefault();
        void act(
          () =>
            got(
              api.PUT('/api/platforms/{id}/token', {
                params: { path: { id: p.id } },
                body: { token },
              }),
            ),
          `${p.name} answered to the new token.`,
        );
      }}
    >
      {#if p.address}
        <label
          ><span class="words">Another token; it is never shown again</span><input
            class="entry"
            type="password"
            autocomplete="off"
            bind:value={token}
            required
          /></label
        >
        <Act type="submit">Renew the token</Act>
      {/if}
      {#if ending}
        <span
          >Nothing is sent to {p.name} any more; {many(p.sections, 'section')} will have no shell. What
          the ledger knows stays.</span
        >
        <Act
          main
          onclick={() =>
            act(
              () => got(api.DELETE('/api/platforms/{id}', { params: { path: { id: p.id } } })),
              `${p.name} has ended.`,
            )}>End it</Act
        >
        <Act onclick={() => (ending = false)}>Keep it</Act>
      {:else}
        <Act onclick={() => (ending = true)}>End this platform…</Act>
      {/if}
    </form>
  {/if}
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
  .more {
    display: flex;
    gap: 8px;
    align-items: end;
    flex-wrap: wrap;
    padding-left: 12px;
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
