<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Field, type Schemas } from '../api/client';
  import { words } from '../delivery/plan';
  import Act from '../frame/Act.svelte';
  import Fields from './Fields.svelte';
  import Setup from './Setup.svelte';
  import TextEditor from './editor/TextEditor.svelte';
  import { sendFile } from './editor/kept';
  import { changeOf, entryOf, merged } from './entry';
  import type { Node } from './tree';

  let {
    master,
    item,
    nodes,
    save,
  }: {
    master: string;
    item: Schemas['ItemView'];
    nodes: Node[];
    save: (c: Schemas['ItemChange']) => Promise<boolean>;
  } = $props();
  let base = $state.raw(untrack(() => entryOf(item)));
  let entry = $state(untrack(() => entryOf(item)));
  /** Another number when the text is another that was not written here. */
  let turned = $state(0);
  /** What somebody else has saved of the same since this was opened. */
  let theirs = $state.raw<Schemas['ItemView'] | null>(null);
  let values = $state.raw<Schemas['Value'][]>([]);
  let form = $state<HTMLFormElement>();
  let saved = $state(false);
  let saving = $state(false);
  let change = $derived(changeOf(entry, base));
  let changed = $derived(Object.keys(change).length > 0);

  /** What was not touched here becomes what it is there; what was stays, and is told. */
  function meet() {
    const now = entryOf(item);
    const met = merged(entry, base, now);
    if (met.entry.html !== entry.html) turned++;
    theirs = met.clash ? item : null;
    entry = met.entry;
    base = now;
  }
  $effect(() => {
    void item;
    untrack(() => saving || meet());
  });

  const has = (...fields: Field[]) => fields.some((f) => item.fields.includes(f));
  const upload = (file: File) => sendFile(master, file);

  if (untrack(() => item.fields.includes('TEXT')))
    void got(api.GET('/api/values', { params: { query: {} } })).then((v) => (values = v));

  async function send(e: SubmitEvent) {
    e.preventDefault();
    if (saving || !changed) return;
    saving = true;
    saved = await save(change);
    if (saved) {
      // the server tidies a text; what stands in the editor means the same
      base = entryOf(item);
      entry = entryOf(item);
      theirs = null;
    } else {
      meet();
    }
    saving = false;
  }

  function key(e: KeyboardEvent) {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 's') return;
    e.preventDefault();
    form?.requestSubmit();
  }
</script>

<svelte:window onkeydown={key} />
<form onsubmit={send} bind:this={form}>
  <label
    ><span class="words">Title</span><input
      class="entry"
      bind:value={entry.title}
      required
      maxlength="400"
    /></label
  >
  {#if theirs}
    <details class="theirs" open>
      <summary>What it says now; saving again puts yours in its place</summary>
      <p>{theirs.title}</p>
      <p class="words">{words(theirs.html)}</p>
    </details>
  {/if}
  {#if has('SETUP')}<Setup bind:entry {nodes} {upload} />{/if}
  {#if has('TEXT') && (!has('SETUP') || entry.subject === 'FRONT_PAGE')}
    {#key turned}<TextEditor
        html={entry.html}
        label="Text of {item.title}"
        change={(html) => (entry.html = html)}
        {upload}
        {nodes}
        {values}
      />{/key}
  {/if}
  {#if has('ADDRESS', 'LAUNCH_ADDRESS')}
    <label
      ><span class="words">Leads to</span><input
        class="entry"
        type="url"
        bind:value={entry.address}
        required
      /></label
    >
  {/if}
  {#if has('TOOL')}
    <label
      ><span class="words">Done in a tool, at its address; empty if in none</span><input
        class="entry"
        type="url"
        bind:value={entry.address}
      /></label
    >
  {/if}
  <Fields bind:entry {item} {nodes} {upload} />
  <span class="do">
    <Act main type="submit" disabled={!changed || saving}>Save {item.title}</Act>
    {#if saved && !changed}<span class="quiet" role="status">Saved in the draft.</span>{/if}
  </span>
</form>

<style>
  .theirs {
    border-left: 3px solid var(--mind-mark);
    padding: 4px 10px;
    max-height: 140px;
    overflow: auto;
  }
  .theirs .words {
    white-space: pre-line;
  }
  form {
    padding: 12px 20px;
    display: flex;
    flex-direction: column;
    gap: 10px;
    min-height: 0;
    overflow: auto;
    background: var(--raise);
  }
  .do {
    display: flex;
    gap: 10px;
    align-items: center;
    min-width: 0;
  }
</style>
