<script lang="ts">
  import { api, got } from '../api/client';
  import SectionPick from './SectionPick.svelte';

  /** A source: an edition, a version of a master, or the shell of a section. */
  let { label, value, pick }: { label: string; value: string; pick: (value: string) => void } =
    $props();
  type Choice = [value: string, words: string];
  let editions = $state.raw<Choice[]>([]);
  let masters = $state.raw<Choice[]>([]);
  let shell = $state(false);
  let section = $state('');

  void Promise.all([got(api.GET('/api/cartridges')), got(api.GET('/api/masters'))]).then(
    ([e, m]) => {
      editions = e.map((x) => ['edition:' + x.id, `${x.title}, edition ${x.number}`]);
      masters = m.flatMap((x) => [
        [`master:${x.id}:0`, `${x.code}, draft`] as Choice,
        ...[...x.versions]
          .reverse()
          .map((v): Choice => [`master:${x.id}:${v.number}`, `${x.code}, version ${v.number}`]),
      ]);
    },
  );
  $effect(() => {
    if (section) pick('section:' + section);
  });
</script>

<span class="pick">
  <select
    class="entry"
    aria-label={label}
    value={shell || value.startsWith('section:') ? 'shell' : value}
    onchange={(e) => {
      shell = e.currentTarget.value === 'shell';
      if (!shell) pick(e.currentTarget.value);
    }}
  >
    <option value="" disabled>{label} …</option>
    <option value="shell">the shell of a section …</option>
    <optgroup label="Cartridges">
      {#each editions as [v, w] (v)}<option value={v}>{w}</option>{/each}
    </optgroup>
    <optgroup label="Masters">
      {#each masters as [v, w] (v)}<option value={v}>{w}</option>{/each}
    </optgroup>
  </select>
  {#if shell || value.startsWith('section:')}<SectionPick label="Section" bind:section />{/if}
</span>

<style>
  .pick {
    display: flex;
    gap: 8px;
    min-width: 0;
  }
  select {
    max-width: 320px;
  }
</style>
