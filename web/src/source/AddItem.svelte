<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Kind, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { kind as word } from '../marks/words';
  import type { Node } from './tree';

  let {
    id,
    nodes,
    selected,
    done,
    cancel,
  }: {
    id: string;
    nodes: Node[];
    selected: string;
    done: (key: string) => void;
    cancel: () => void;
  } = $props();
  let kinds = $state.raw<Schemas['KindView'][]>([]);
  let kind = $state<Kind>('PAGE');
  let leads = $derived(
    !!kinds
      .find((k) => k.kind === kind)
      ?.fields.some((f) => f === 'ADDRESS' || f === 'LAUNCH_ADDRESS'),
  );
  let title = $state('');
  let address = $state('https://');
  let trouble = $state.raw<unknown>(null);
  let modules = $derived(nodes.filter((n) => n.kind === 'MODULE'));
  let parent = $state(
    untrack(() => {
      const at = nodes.find((n) => n.key === selected);
      return (at?.kind === 'MODULE' ? at.key : at?.parent) ?? '';
    }),
  );

  let picks = $state.raw<Schemas['PickTool'][]>([]);
  untrack(() => {
    void got(api.GET('/api/masters/{id}/draft/picks', { params: { path: { id } } })).then(
      (all) => (picks = all),
      (e) => (trouble = e),
    );
  });

  /** The browser goes on at the tool, and comes back to this draft with what was picked. */
  async function pickIn(connection: string) {
    try {
      const { address } = await got(
        api.POST('/api/masters/{id}/draft/picks', {
          params: { path: { id } },
          body: { connection, parent: parent || undefined },
        }),
      );
      location.assign(address);
    } catch (x) {
      trouble = x;
    }
  }

  void got(api.GET('/api/masters/kinds')).then(
    (all) => (kinds = all.filter((k) => k.fromNothing)),
    (e) => (trouble = e),
  );

  async function add(e: SubmitEvent) {
    e.preventDefault();
    try {
      const made = await got(
        api.POST('/api/masters/{id}/draft/items', {
          params: { path: { id } },
          body: { kind, title, address: leads ? address : undefined, parent: parent || undefined },
        }),
      );
      done(made.key);
    } catch (x) {
      trouble = x;
    }
  }
</script>

<form onsubmit={add}>
  <h2>Add an item</h2>
  <div class="kinds" role="group" aria-label="Kind">
    {#each kinds as { kind: k } (k)}
      <button type="button" class="tab" aria-pressed={kind === k} onclick={() => (kind = k)}
        >{word(k)}</button
      >
    {/each}
  </div>
  <label
    ><span class="words">Title</span><input
      class="entry"
      bind:value={title}
      required
      maxlength="400"
    /></label
  >
  {#if leads}
    <label
      ><span class="words">Leads to</span><input
        class="entry"
        type="url"
        bind:value={address}
        required
      /></label
    >
  {/if}
  <label>
    <span class="words">At the end of</span>
    <select class="entry" bind:value={parent}>
      <option value="">the whole outline</option>
      {#each modules as m (m.key)}<option value={m.key}>{m.title}</option>{/each}
    </select>
  </label>
  {#if picks.length}
    <p class="picks">
      <span class="quiet">Or pick what is there, in the tool itself:</span>
      {#each picks as p (p.connection)}
        <Act onclick={() => void pickIn(p.connection)}>Pick in {p.name}</Act>
      {/each}
    </p>
  {/if}
  <Trouble of={trouble} />
  <div class="acts">
    <Act main type="submit">Add {word(kind)}</Act>
    <Act onclick={cancel}>Cancel</Act>
  </div>
</form>

<style>
  form {
    padding: 18px 24px;
    display: grid;
    gap: 12px;
    max-width: 560px;
    align-content: start;
    grid-row: 1 / 4;
  }
  .kinds {
    display: flex;
    gap: 16px;
    flex-wrap: wrap;
  }
  .acts,
  .picks {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
</style>
