<script lang="ts">
  import { many } from '../marks/words';
  import { OtherShells } from './otherShells.svelte';

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
  const others = new OtherShells();
  let shells = $derived(others.all);
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
