<script lang="ts">
  import { api, got, type Kind } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { kind as word, kinds } from '../marks/words';

  /** What a master is limited to; freezing refuses anything else. */
  let { id, saved }: { id: string; saved: () => void } = $props();
  let most = $state<Partial<Record<Kind, string>>>({});
  let limited = $state(false);
  let trouble = $state.raw<unknown>(null);
  const path = $derived({ id });

  $effect(() => {
    void got(api.GET('/api/masters/{id}/guard', { params: { path } })).then(
      (g) => {
        most = Object.fromEntries(
          Object.entries(g.most).map(([k, n]) => [k, n ? String(n) : 'any']),
        );
        limited = Object.keys(most).length > 0;
      },
      (e) => (trouble = e),
    );
  });

  async function save() {
    try {
      const all: Record<string, number> = {};
      if (limited)
        for (const [k, n] of Object.entries(most)) if (n) all[k] = n === 'any' ? 0 : Number(n);
      await got(api.PUT('/api/masters/{id}/guard', { params: { path }, body: { most: all } }));
      saved();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<fieldset>
  <label class="check"
    ><input type="checkbox" bind:checked={limited} />This master may hold only these kinds, beside
    modules</label
  >
  {#if limited}
    <div class="kinds">
      {#each kinds.filter((k) => k !== 'MODULE') as k (k)}
        <label
          >{word(k)}
          <select class="entry" bind:value={most[k]}>
            <option value={undefined}>none</option>
            <option value="1">one</option><option value="2">two</option><option value="3"
              >three</option
            >
            <option value="any">any number</option>
          </select></label
        >
      {/each}
    </div>
  {/if}
  <Trouble of={trouble} />
  <span><Act onclick={() => void save()}>Keep this limit</Act></span>
</fieldset>

<style>
  fieldset {
    display: grid;
    gap: 8px;
    padding: 8px 12px;
    border-left: 3px solid var(--line);
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 4px 16px;
  }
  .kinds label {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: center;
  }
  .entry {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    width: 110px;
  }
</style>
