<script lang="ts">
  import { untrack } from 'svelte';
  import type { Field, Schemas } from '../api/client';
  import { words } from '../delivery/plan';
  import Act from '../frame/Act.svelte';

  let {
    item,
    save,
  }: { item: Schemas['ItemView']; save: (c: Schemas['ItemChange']) => Promise<void> } = $props();
  let title = $state(untrack(() => item.title));
  let html = $state(untrack(() => item.html));
  let points = $state(untrack(() => item.points ?? ''));
  let address = $state(untrack(() => item.address ?? ''));
  let due = $state(untrack(() => item.due ?? ''));
  let saved = $state(false);
  const begun = untrack(() => item);
  /** What somebody else has saved since this was opened. */
  let theirs = $derived(item.html !== begun.html || item.title !== begun.title ? item : null);

  const has = (...fields: Field[]) => fields.some((f) => item.fields.includes(f));
  let changed = $derived.by(() => {
    const c: Schemas['ItemChange'] = {};
    if (title !== item.title) c.title = title;
    if (html !== item.html) c.html = html;
    if (points !== (item.points ?? '')) c.points = points;
    if (address !== (item.address ?? '')) c.address = address;
    if (due !== (item.due ?? '')) c.due = due;
    return c;
  });

  async function send(e: SubmitEvent) {
    e.preventDefault();
    const sent = changed;
    await save(sent);
    saved = true;
  }
</script>

<form onsubmit={send}>
  <label
    ><span class="words">Title</span><input
      class="entry"
      bind:value={title}
      required
      maxlength="400"
    /></label
  >
  {#if theirs && !saved}
    <details class="theirs" open>
      <summary>What it says now; saving again puts yours in its place</summary>
      <p>{theirs.title}</p>
      <p class="words">{words(theirs.html)}</p>
    </details>
  {/if}
  {#if has('TEXT')}
    <label class="text">
      <span class="words">Text (HTML)</span>
      <textarea class="entry" bind:value={html} spellcheck="true"></textarea>
    </label>
  {/if}
  {#if has('ADDRESS', 'LAUNCH_ADDRESS')}
    <label
      ><span class="words">Leads to</span><input
        class="entry"
        type="url"
        bind:value={address}
        required
      /></label
    >
  {/if}
  <div class="small">
    {#if has('POINTS')}
      <label
        ><span class="words">Points</span><input
          class="entry fig"
          bind:value={points}
          inputmode="decimal"
        /></label
      >
    {/if}
    {#if has('DUE')}
      <label
        ><span class="words">Due</span><input
          class="entry fig"
          type="datetime-local"
          bind:value={due}
        /></label
      >
    {/if}
    <span class="do">
      <Act main type="submit" disabled={!Object.keys(changed).length}>Save {item.title}</Act>
      {#if saved && !Object.keys(changed).length}<span class="quiet" role="status"
          >Saved in the draft.</span
        >{/if}
    </span>
  </div>
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
    padding: 14px 20px;
    display: flex;
    flex-direction: column;
    gap: 10px;
    min-height: 0;
    background: var(--raise);
  }
  .text {
    flex: 1;
    display: flex;
    flex-direction: column;
    min-height: 120px;
  }
  textarea {
    flex: 1;
    font: 13px/19px var(--figure) !important;
    resize: none;
  }
  .small {
    display: flex;
    gap: 12px;
    align-items: end;
  }
  .do {
    display: flex;
    gap: 10px;
    align-items: center;
    min-width: 0;
  }
</style>
