<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import { many } from '../marks/words';

  /** Shells to try a delivery in before it goes to all, and shared ones. */
  let {
    chosen,
    choose,
    sections,
  }: {
    /** The shell that it goes to now; empty: the sections in hand. */
    chosen: string;
    choose: (section: string) => void;
    sections: number;
  } = $props();
  let shells = $state.raw<Schemas['OtherShell'][]>([]);
  $effect(
    () =>
      void got(api.GET('/api/shells')).then(
        (s) => (shells = s),
        () => (shells = []), // who may not see them has none to try in
      ),
  );
  const kinds = { PRACTICE: 'to try in', SHARED: 'shared' } as const;
</script>

{#if shells.length}
  <label>
    <span class="words">Goes to</span>
    <select
      class="entry"
      value={chosen}
      onchange={(e) => choose(e.currentTarget.value)}
      aria-label="Goes to"
    >
      <option value=""
        >{sections ? many(sections, 'section') + ' in hand' : 'no section yet'}</option
      >
      {#each shells as s (s.section)}
        <option value={s.section}>{s.title} ({kinds[s.purpose]}, {s.course})</option>
      {/each}
    </select>
  </label>
{/if}

<style>
  label {
    display: grid;
    gap: 2px;
    margin: 8px 0;
  }
  select {
    width: 100%;
  }
</style>
