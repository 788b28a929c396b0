<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import Findings from './Findings.svelte';

  /** Whether a cartridge asks for authorisation, and whether its protected parts may leave. */
  let { edition, changed }: { edition: Schemas['Edition']; changed: () => void } = $props();
  let restricted = $derived(edition.report.restricted ?? []);
  let asks = $derived(edition.report.facts?.restricted || restricted.length > 0);
  let decides = $derived(session.me?.role === 'ADMINISTRATOR');
  let trouble = $state.raw<unknown>(null);

  async function decide(consent: boolean) {
    const params = { path: { cartridge: edition.cartridge } };
    try {
      await got(
        consent
          ? api.PUT('/api/cartridges/{cartridge}/consent', { params })
          : api.DELETE('/api/cartridges/{cartridge}/consent', { params }),
      );
      trouble = null;
      changed();
    } catch (e) {
      trouble = e;
    }
  }
</script>

{#if !asks}
  Open; asks for no authorisation.
{:else}
  <div class="asks">
    <span class="mind">Asks for {edition.report.facts?.asks || 'authorisation'} before use.</span>
    <Findings
      lines={restricted.map((f) => [f.where ?? '', ''])}
      none=""
      say={(n) => many(n, 'protected item')}
    />
    {#if edition.consentAt}
      <span>An administrator consented <When at={edition.consentAt} />: they may be delivered.</span
      >
    {:else}
      <span class="quiet"
        >Until an administrator consents, no version with these items can be frozen or packed.</span
      >
    {/if}
    {#if decides}
      <span>
        <Act onclick={() => decide(!edition.consentAt)}
          >{edition.consentAt ? 'Withdraw the consent' : 'Consent that they leave'}</Act
        >
      </span>
    {/if}
    <Trouble of={trouble} />
  </div>
{/if}

<style>
  .asks {
    display: grid;
    gap: 4px;
    justify-items: start;
  }
  .mind {
    color: var(--mind);
  }
</style>
