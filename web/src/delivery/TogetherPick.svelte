<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import Choice from './Choice.svelte';
  import { inOrder, versionsOf } from './together';

  /** Other masters that come in the same order, as a part of its sentence. */
  type Master = Schemas['MasterView'];
  let {
    master,
    version,
    versions = $bindable(),
  }: {
    master: Master;
    version: string;
    /** Those that are delivered as one order; none if it is this master alone. */
    versions: string[];
  } = $props();
  let all = $state.raw<Master[]>([]);
  $effect(
    () =>
      void got(api.GET('/api/masters')).then(
        (m) => (all = m),
        () => (all = []), // then it is this one alone
      ),
  );
  let named = $derived(place.get('with').split(',').filter(Boolean));
  let others = $derived(
    all.filter((m) => m.id !== master.id && m.versions.length && named.includes(m.id)),
  );
  let order = $derived(inOrder(master, others));
  let more = $derived(
    Object.fromEntries([
      ['', others.length ? 'nothing more' : 'no other master'],
      ...all
        .filter(
          (m) => m.id !== master.id && m.versions.length && !m.retiredAt && !named.includes(m.id),
        )
        .map((m) => [m.id, m.code]),
    ]) as Record<string, string>,
  );
  $effect(() => {
    versions = others.length ? versionsOf(order, master, version) : [];
  });
  const say = (ids: string[]) => place.set({ with: ids.join(',') });
  const words = (m: Master) => (order.indexOf(m) < order.indexOf(master) ? 'after' : 'before');
</script>

{#each order.filter((m) => m !== master) as m (m.id)}
  {words(m)}&#32;<b class="fig">{m.code}</b> v{m.versions.length}&#32;<button
    type="button"
    class="link quiet"
    aria-label="Leave {m.code} out of this order"
    onclick={() => say(named.filter((id) => id !== m.id))}>leave it out</button
  >,&#32;
{/each}
with&#32;<Choice
  label="Another master in the same order"
  words={more}
  value=""
  choose={(id) => say([...named, id])}
/>,
