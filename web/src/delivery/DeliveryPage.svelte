<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { place } from '../frame/place.svelte';
  import PlanView from './PlanView.svelte';
  import RunView from './RunView.svelte';

  let { id }: { id: string } = $props();
  let detail = $state.raw<Schemas['DeliveryDetail'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function look() {
    clearTimeout(timer);
    try {
      detail = await got(api.GET('/api/deliveries/{id}', { params: { path: { id } } }));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
    const moving =
      !detail ||
      ['PLANNING', 'RUNNING'].includes(detail.delivery.state) ||
      detail.lines.some((l) => l.state === 'RUNNING') ||
      detail.together.some((d) => d.state === 'PLANNING');
    const later = detail?.lines.some((l) => l.state === 'NOT_YET') && detail.delivery.confirmedAt;
    if (moving || later) timer = setTimeout(look, moving ? 1000 : 5000);
  }
  $effect(() => {
    void look();
    return () => clearTimeout(timer);
  });

  async function act(what: 'confirm' | 'stop' | 'go-on', begin: Schemas['Begin'] = {}) {
    const params = { path: { id } };
    try {
      if (what === 'confirm')
        await got(api.POST('/api/deliveries/{id}/confirm', { params, body: begin }));
      else if (what === 'stop') await got(api.POST('/api/deliveries/{id}/stop', { params }));
      else await got(api.POST('/api/deliveries/{id}/go-on', { params }));
      place.set({ look: '' });
      await look();
    } catch (e) {
      trouble = e;
    }
  }

  async function takeBack(sections?: string[]) {
    const params = { path: { id } };
    try {
      const body = { sections };
      const made = await got(api.POST('/api/deliveries/{id}/take-back', { params, body }));
      place.go('/deliveries/' + made.id);
    } catch (e) {
      trouble = e;
    }
  }

  async function choose(body: Schemas['Chosen']) {
    try {
      await got(api.PUT('/api/deliveries/{id}/choices', { params: { path: { id } }, body }));
      await look();
    } catch (e) {
      trouble = e;
    }
  }

  let plan = $derived(
    detail !== null && (!detail.delivery.confirmedAt || place.get('look') === 'plan'),
  );
</script>

{#if detail}
  {#if plan}
    <PlanView
      {detail}
      {trouble}
      confirm={(begin) => act('confirm', begin)}
      {choose}
      changed={() => void look()}
    />
  {:else}
    <RunView
      {detail}
      {trouble}
      stop={() => act('stop')}
      goOn={() => act('go-on')}
      {takeBack}
      changed={() => void look()}
    />
  {/if}
{:else}
  <div class="wait">
    <Trouble of={trouble} />{#if !trouble}<h1>Opening the delivery …</h1>{/if}
  </div>
{/if}

<style>
  .wait {
    padding: 14px 16px;
  }
</style>
