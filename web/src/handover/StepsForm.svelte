<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import type { Group } from './handovers';

  /** The college's own steps and contact for a kind of hand-over. */
  let { line, mayWrite, begun }: { line: Group; mayWrite: boolean; begun: () => void } = $props();
  let first = $derived(line.all[0]);
  let writing = $state(false);
  let steps = $state(untrack(() => first.steps));
  let contact = $state(untrack(() => first.contact));
  let trouble = $state.raw<unknown>(null);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      await got(
        api.PUT('/api/hand-overs/steps', {
          body: { kind: line.kind, host: line.host, steps, contact },
        }),
      );
      writing = false;
      trouble = null;
      begun();
    } catch (e) {
      trouble = e;
    }
  }
</script>

{#if writing}
  <form onsubmit={keep}>
    <label
      >How it is done here
      <textarea class="entry" rows="5" maxlength="4000" bind:value={steps}></textarea></label
    >
    <label>Whom to ask <input class="entry" maxlength="400" bind:value={contact} /></label>
    <Trouble of={trouble} />
    <span class="acts">
      <Act main type="submit">Keep the steps</Act>
      <Act onclick={() => (writing = false)}>Cancel</Act>
    </span>
  </form>
{:else}
  {#if first.steps}<p class="steps">{first.steps}</p>{/if}
  {#if first.contact}<p class="quiet">Whom to ask: {first.contact}</p>{/if}
  {#if mayWrite}
    <p>
      <button class="link" onclick={() => (writing = true)}
        >{first.steps || first.contact ? 'Change the steps' : 'Write how it is done here'}</button
      >
    </p>
  {/if}
{/if}

<style>
  form,
  label {
    display: grid;
    gap: 6px;
    font-size: 13px;
  }
  label .entry {
    width: 100%;
    max-width: none;
  }
  textarea {
    height: auto;
  }
  .steps {
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
