<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';

  /** From when until when students may enter these shells. */
  let { ids, firstDay, begun }: { ids: string[]; firstDay: string; begun: () => void } = $props();
  let chosen = $state<string | null>(null);
  let opens = $derived(chosen ?? firstDay);
  let closes = $state('');
  let trouble = $state.raw<unknown>(null);
  let said = $state('');

  async function open(e: SubmitEvent) {
    e.preventDefault();
    try {
      const done = await got(
        api.POST('/api/checks/open', {
          body: { sections: ids, opens: opens || undefined, closes: closes || undefined },
        }),
      );
      trouble = null;
      said = `${many(done.sections, 'shell')} ${done.sections === 1 ? 'is' : 'are'} being opened`;
      begun();
    } catch (x) {
      trouble = x;
    }
  }
</script>

<form onsubmit={open}>
  <label
    >From <input
      class="entry"
      type="date"
      value={opens}
      onchange={(e) => (chosen = e.currentTarget.value)}
    /></label
  >
  <label>Until <input class="entry" type="date" bind:value={closes} /></label>
  <Act main type="submit">Open {many(ids.length, 'shell')} to students</Act>
  <Trouble of={trouble} />
  {#if said}<p class="quiet" role="status">{said}.</p>{/if}
</form>

<style>
  form {
    display: grid;
    gap: 8px;
    margin-top: 8px;
  }
  label {
    display: grid;
    grid-template-columns: 60px 1fr;
    align-items: center;
    font-size: 13px;
  }
</style>
