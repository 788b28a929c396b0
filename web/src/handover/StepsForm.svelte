<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { platformsOf, stepsOf, type Group } from './handovers';

  /** The college's own steps and contact for a kind of hand-over. */
  let { line, mayWrite, begun }: { line: Group; mayWrite: boolean; begun: () => void } = $props();
  let said = $derived(stepsOf(line.all));
  let platforms = $derived(platformsOf(line.all));
  let writing = $state(false);
  let platform = $state('');
  let steps = $state('');
  let contact = $state('');
  let trouble = $state.raw<unknown>(null);

  /** What is said there now is where one begins. */
  function begin(at: string) {
    const now = line.all.find((h) => !at || h.platform === at);
    platform = at;
    steps = now?.steps ?? '';
    contact = now?.contact ?? '';
    writing = true;
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      await got(
        api.PUT('/api/hand-overs/steps', {
          body: {
            kind: line.kind,
            host: line.host,
            platform: platform || undefined,
            steps,
            contact,
          },
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
      >On
      <select class="entry" value={platform} onchange={(e) => begin(e.currentTarget.value)}>
        <option value="">every platform</option>
        {#each platforms as p (p.id)}<option value={p.id}>{p.name} alone</option>{/each}
      </select></label
    >
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
  {#each said as s (s.on)}
    {#if said.length > 1}<h3>On {s.on}</h3>{/if}
    {#if s.steps}<p class="steps">{s.steps}</p>{/if}
    {#if s.contact}<p class="quiet">Whom to ask: {s.contact}</p>{/if}
  {/each}
  {#if mayWrite}
    <p>
      <button class="link" onclick={() => begin('')}
        >{said.some((s) => s.steps || s.contact)
          ? 'Change the steps'
          : 'Write how it is done here'}</button
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
  h3 {
    font-size: 13px;
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
