<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';

  /** Asks an administrator whether a host may be used. */
  let {
    host,
    asked,
    sections,
    begun,
  }: { host: string; asked: boolean; sections: number; begun: () => void } = $props();
  let reason = $state('');
  let trouble = $state.raw<unknown>(null);

  async function ask(e: SubmitEvent) {
    e.preventDefault();
    try {
      await got(api.POST('/api/tools/requests', { body: { host, reason } }));
      trouble = null;
      begun();
    } catch (x) {
      trouble = x;
    }
  }
</script>

{#if asked}
  <p class="quiet">
    It was asked for; <a class="link" href="/tools/requests">an administrator decides</a>.
  </p>
{:else}
  <form onsubmit={ask}>
    <label for="why">Why {many(sections, 'section')} need it</label>
    <textarea id="why" class="entry" rows="3" maxlength="2000" required bind:value={reason}
    ></textarea>
    <Act type="submit">Ask for approval</Act>
    <Trouble of={trouble} />
  </form>
{/if}

<style>
  form {
    display: grid;
    gap: 6px;
    justify-items: start;
    margin-top: 12px;
  }
  label {
    font-size: 13px;
    color: var(--ink-2);
  }
  textarea {
    width: 100%;
  }
</style>
