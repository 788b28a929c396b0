<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  let { done }: { done: () => void } = $props();
  let name = $state('');
  let address = $state('');
  let token = $state('');
  let quiet = $state(false);
  let campuses = $state.raw<Schemas['CampusView'][]>([]);
  let chosen = $state<string[]>([]);
  let trouble = $state.raw<unknown>(null);
  $effect(() => {
    if (quiet)
      void got(api.GET('/api/campuses')).then(
        (c) => (campuses = c),
        (e) => (trouble = e),
      );
  });

  async function add(e: SubmitEvent) {
    e.preventDefault();
    try {
      await (quiet
        ? got(api.POST('/api/platforms/by-packages', { body: { name, campuses: chosen } }))
        : got(api.POST('/api/platforms', { body: { name, address, token } })));
      name = address = token = '';
      chosen = [];
      quiet = false;
      trouble = null;
      done();
    } catch (x) {
      trouble = x;
    }
  }
</script>

<form onsubmit={add}>
  <label><span class="words">Name</span><input class="entry" bind:value={name} required /></label>
  {#if quiet}
    <fieldset>
      <legend class="words">It holds the shells of</legend>
      {#each campuses as c (c.sourcedId)}
        <label class="tick"
          ><input type="checkbox" value={c.sourcedId} bind:group={chosen} /> {c.name}</label
        >
      {:else}<span class="quiet">No campus yet; take a roster in first.</span>{/each}
    </fieldset>
  {:else}
    <label
      ><span class="words">Address</span><input
        class="entry"
        type="url"
        placeholder="https://"
        bind:value={address}
        required
      /></label
    >
    <label
      ><span class="words">Token; it is never shown again</span><input
        class="entry"
        type="password"
        autocomplete="off"
        bind:value={token}
        required
      /></label
    >
  {/if}
  <Act main type="submit" disabled={quiet && !chosen.length}>Name this platform</Act>
  <label class="tick whole"
    ><input type="checkbox" bind:checked={quiet} /> It has no interface: packages go in by hand</label
  >
</form>
<Trouble of={trouble} />

<style>
  form {
    display: grid;
    grid-template-columns: 180px 1fr 1fr auto;
    gap: 8px;
    align-items: end;
  }
  fieldset {
    grid-column: 2 / 4;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  .tick {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .whole {
    grid-column: 1 / 5;
  }
</style>
