<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  /** When a delivery needs a second person's word. */
  let { admin }: { admin: boolean } = $props();
  let rule = $state.raw<Schemas['SecondWordRule'] | null>(null);
  let from = $state('');
  let removes = $state(false);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');

  async function load() {
    try {
      rule = await got(api.GET('/api/deliveries/second-word'));
      from = rule.fromSections ? String(rule.fromSections) : '';
      removes = rule.removes;
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function keep(e: SubmitEvent) {
    e.preventDefault();
    try {
      const body = { fromSections: from ? Number(from) : undefined, removes };
      await got(api.PUT('/api/deliveries/second-word', { body }));
      trouble = null;
      said = 'Kept.';
      await load();
    } catch (x) {
      trouble = x;
      said = '';
    }
  }
</script>

<Trouble of={trouble} />
{#if rule && admin}
  <form class="line" onsubmit={keep}>
    <label
      >From <input class="entry n" type="number" min="1" max="5000" bind:value={from} /> sections on (empty:
      size is no matter)</label
    >
    <label><input type="checkbox" bind:checked={removes} /> when it removes anything</label>
    <Act type="submit">Keep this</Act>
    {#if said}<span class="quiet" role="status">{said}</span>{/if}
  </form>
{:else if rule}
  <p class="quiet">
    {rule.fromSections || rule.removes
      ? [
          rule.fromSections && `From ${rule.fromSections} sections`,
          rule.removes && 'when it removes anything',
        ]
          .filter(Boolean)
          .join(', and ')
      : 'Never; an administrator can turn it on.'}
  </p>
{/if}

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 20px;
    align-items: center;
  }
  .n {
    width: 90px;
  }
</style>
