<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import { kind as word } from '../lib/words';
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
  type Kind = Schemas['NewItem']['kind'];
  const kinds: Kind[] = [
    'PAGE',
    'ASSIGNMENT',
    'DISCUSSION',
    'WEB_LINK',
    'TOOL_LINK',
    'ANNOUNCEMENT',
    'MODULE',
  ];
  let kind = $state<Kind>('PAGE');
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

  async function add(e: SubmitEvent) {
    e.preventDefault();
    const link = kind === 'WEB_LINK' || kind === 'TOOL_LINK';
    try {
      const made = await got(
        api.POST('/api/masters/{id}/draft/items', {
          params: { path: { id } },
          body: { kind, title, address: link ? address : undefined, parent: parent || undefined },
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
    {#each kinds as k (k)}
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
  {#if kind === 'WEB_LINK' || kind === 'TOOL_LINK'}
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
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
