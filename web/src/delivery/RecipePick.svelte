<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import { address, chosen, differs, ofChosen, type Order } from './order';

  /** Recipes of a master: taken, told where today's order differs, kept under a name. */
  let {
    master,
    order,
    sections,
    lost,
  }: {
    master: string;
    order: Order;
    sections: number;
    /** How many of the items that the order names the version does not have. */
    lost: number;
  } = $props();
  let recipes = $state.raw<Schemas['Recipe'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let naming = $state(false);
  let name = $state('');
  let at = $derived(recipes.find((r) => r.id === place.get('recipe')));
  /** Masters that come with it as one order. */
  let others = $derived(place.get('with').split(',').filter(Boolean));
  let sameOthers = $derived([...others].sort().join() === [...(at?.others ?? [])].sort().join());
  let other = $derived(
    at ? [...differs(order, at.choices), ...(sameOthers ? [] : ['the other masters'])] : [],
  );
  /** Far fewer or more sections than last time. */
  let odd = $derived(
    at?.sections && (sections < at.sections / 2 || sections > at.sections * 2) ? at.sections : 0,
  );

  async function load() {
    try {
      recipes = await got(api.GET('/api/deliveries/recipes', { params: { query: { master } } }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  function take(id: string) {
    const r = recipes.find((x) => x.id === id);
    place.set({
      ...(r ? { ...address(ofChosen(r.choices)), with: r.others.join(',') } : {}),
      recipe: id,
    });
  }

  async function keep() {
    try {
      const body = { master, name, choices: chosen(order), others };
      const kept = await got(api.POST('/api/deliveries/recipes', { body }));
      naming = false;
      name = '';
      trouble = null;
      await load();
      place.set({ recipe: kept.id });
    } catch (e) {
      trouble = e;
    }
  }

  async function drop(recipe: string) {
    try {
      await got(api.DELETE('/api/deliveries/recipes/{recipe}', { params: { path: { recipe } } }));
      place.set({ recipe: '' });
      await load();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<h2>Recipe</h2>
{#if recipes.length}
  <select
    class="entry"
    aria-label="Recipe"
    value={at?.id ?? ''}
    onchange={(e) => take(e.currentTarget.value)}
  >
    <option value="">{at ? 'no recipe' : 'take one …'}</option>
    {#each recipes as r (r.id)}<option value={r.id}>{r.name}</option>{/each}
  </select>
{:else if !naming}
  <p class="quiet">These choices can be kept for the next time.</p>
{/if}
{#if at}
  <p class="quiet">
    {#if at.used}Used {at.used === 1 ? 'once' : `${at.used} times`}, last
      {#if at.usedAt}<When at={at.usedAt} />{/if} for {many(at.sections, 'section')}.
    {:else}Kept by {at.madeBy}, not used yet.{/if}
    {#if other.length}Today differs: {other.join(', ')}.{/if}
  </p>
  {#if at.gone}
    <p class="mind">
      {at.gone === 1 ? 'One of its other masters is' : `${at.gone} of its other masters are`} gone or
      without a version. It comes without; keep it anew to forget that.
    </p>
  {/if}
  {#if lost}
    <p class="mind">
      {many(lost, 'item')} that it names {lost === 1 ? 'is' : 'are'} not in this version any more.
    </p>
  {/if}
  {#if odd}
    <p class="mind">
      It went to {many(odd, 'section')} the last time; now to {many(sections, 'section')}.
    </p>
  {/if}
{/if}
{#if naming}
  <form
    class="line"
    onsubmit={(e) => {
      e.preventDefault();
      void keep();
    }}
  >
    <input
      class="entry"
      aria-label="Name of the recipe"
      placeholder="for instance: start of term"
      maxlength="100"
      required
      bind:value={name}
    />
    <Act type="submit">Keep</Act>
  </form>
{:else}
  <p class="line">
    {#if !at || other.length}
      <button type="button" class="link" onclick={() => (naming = true)}>Keep as a recipe</button>
    {/if}
    {#if at}
      <button type="button" class="link" onclick={() => void drop(at.id)}>Take it away</button>
    {/if}
  </p>
{/if}
<Trouble of={trouble} />

<style>
  h2 {
    margin: 16px 0 4px;
  }
  p {
    font-size: 13.5px;
  }
  select {
    width: 100%;
    margin-bottom: 4px;
  }
  .mind {
    color: var(--mind);
  }
  .line {
    display: flex;
    gap: 12px;
    padding-top: 2px;
  }
  .line input {
    min-width: 0;
    flex: 1;
  }
</style>
