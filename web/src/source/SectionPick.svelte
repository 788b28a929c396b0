<script lang="ts" module>
  import { api, got } from '../api/client';

  type Section = { id: string; code: string; title: string };
  const terms = new Map<string, Promise<Section[]>>();

  /** Sections of a term, fetched once. */
  function sectionsOf(term: string): Promise<Section[]> {
    let all = terms.get(term);
    if (!all) {
      all = got(api.GET('/api/coverage', { params: { query: { term } } })).then((c) => c.sections);
      terms.set(term, all);
    }
    return all;
  }
</script>

<script lang="ts">
  import { session } from '../frame/session.svelte';

  /** One section of the term, found by its code or title. */
  let { label, section = $bindable('') }: { label: string; section: string } = $props();
  let all = $state.raw<Section[]>([]);
  let typed = $state('');
  const name = (s: Section) => `${s.code} · ${s.title}`;
  let id = $props.id();

  $effect(() => {
    if (session.term) void sectionsOf(session.term.id).then((s) => (all = s));
  });

  let found = $derived.by(() => {
    const t = typed.trim().toLowerCase();
    return (
      all.find((s) => name(s).toLowerCase() === t) ?? all.find((s) => s.code.toLowerCase() === t)
    )?.id;
  });
  $effect(() => {
    if (typed || found) section = found ?? '';
  });
</script>

<input
  class="entry"
  list="sections-{id}"
  aria-label={label}
  placeholder={label}
  bind:value={typed}
/>
<datalist id="sections-{id}">
  {#each all as s (s.id)}<option value={name(s)}></option>{/each}
</datalist>

<style>
  .entry {
    width: 230px;
    min-height: 26px;
    font-size: 13px;
  }
</style>
