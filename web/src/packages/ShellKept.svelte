<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { session } from '../frame/session.svelte';
  import { broughtIn, packageOf, sheetOf, told, upload } from './packages';

  /** What is known of a shell that nobody can ask, and the package that waits for it. */
  let {
    section,
    kept,
    done,
  }: { section: string; kept: Schemas['KeptShell']; done: () => Promise<void> } = $props();
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let busy = $state(false);
  let picker = $state<HTMLInputElement>();
  let w = $derived(kept.waits);

  async function act(call: () => Promise<string>) {
    busy = true;
    said = '';
    trouble = null;
    try {
      said = await call();
      await done();
    } catch (e) {
      trouble = e;
    }
    busy = false;
  }

  async function putAway() {
    const params = { path: { section } };
    await got(api.POST('/api/packages/{section}/put-away', { params }));
    return 'Put away. The next delivery makes it anew.';
  }

  async function exported(files: FileList | null) {
    const f = files?.[0];
    if (f) await act(async () => told(await upload(section, f)));
    if (picker) picker.value = '';
  }
</script>

<div class="kept">
  {#if w}
    <p>
      <b>{w.masterCode}, version {w.number}, waits to be brought in</b>
      <span class="quiet">since <When at={w.since} />, on {w.platform}</span>
    </p>
    <p class="do">
      <a class="link" href={packageOf(section)} download>Its package</a>
      <a class="link" href={sheetOf(section)} target="_blank" rel="noopener">Its sheet</a>
      <Act
        main
        disabled={busy}
        onclick={() => act(async () => (await broughtIn([section]), 'Said. It goes on by itself.'))}
        >It was brought in</Act
      >
      {#if session.coordinates}
        <Act disabled={busy} onclick={() => act(putAway)}>Put it away</Act>
      {/if}
    </p>
  {/if}
  <p class="do">
    <span class="quiet">
      Its platform has no interface.
      {#if kept.known === 'EXPORTED'}What it holds is known from its export, <When
          at={kept.knownAt ?? ''}
        />.
      {:else if kept.known === 'SAID'}What it holds was said <When at={kept.knownAt ?? ''} />.
      {:else}It is taken to be empty until an export says otherwise.{/if}
    </span>
    <label class="link pick"
      >{busy ? 'Reading …' : 'Upload an export of the shell'}<input
        class="sr-only"
        type="file"
        accept=".imscc,.zip"
        disabled={busy}
        bind:this={picker}
        onchange={(e) => exported(e.currentTarget.files)}
      /></label
    >
  </p>
  {#if said}<p role="status">{said}</p>{/if}
  <Trouble of={trouble} />
</div>

<style>
  .kept {
    padding: 6px 12px;
    margin: 4px 16px 8px 0;
    border-left: 3px solid var(--do);
    background: var(--do-soft);
    display: grid;
    gap: 4px;
  }
  .do {
    display: flex;
    gap: 14px;
    align-items: center;
    flex-wrap: wrap;
  }
  .pick {
    cursor: pointer;
  }
  .pick:focus-within {
    outline: 2px solid var(--do);
    outline-offset: 2px;
  }
</style>
