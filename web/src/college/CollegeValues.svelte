<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  /** Values of the whole college; the roster gives the others. */
  let all = $state<Schemas['Value'][]>([]);
  let words = $state('');
  let text = $state('');
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let roster = $derived(all.filter((v) => !v.college));
  let own = $derived(all.filter((v) => v.college));

  const load = () =>
    got(api.GET('/api/values', { params: { query: {} } })).then(
      (v) => (all = v),
      (e) => (trouble = e),
    );
  $effect(() => void load());

  async function act(call: () => Promise<unknown>, what: string) {
    trouble = null;
    said = '';
    try {
      await call();
      said = what;
      await load();
    } catch (e) {
      trouble = e;
    }
  }
  const keep = (value: string, body: Schemas['ValueText']) =>
    act(
      () => got(api.PUT('/api/values/{value}', { params: { path: { value } }, body })),
      `${body.words} is kept; pages that use it are behind until they are delivered again.`,
    );

  async function add(e: SubmitEvent) {
    e.preventDefault();
    const name = words
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, 40);
    await keep(name, { words, text });
    if (!trouble) words = text = '';
  }
</script>

<p class="quiet">
  From the roster, for each section: {roster.map((v) => v.words).join(', ')}. Of the whole college:
</p>
<Trouble of={trouble} />
{#each own as v (v.name)}
  <form
    onsubmit={(e) => {
      e.preventDefault();
      void keep(v.name, { words: v.words, text: v.text ?? '' });
    }}
  >
    <b class="cut">{v.words}</b>
    <input class="entry" aria-label="Text of {v.words}" maxlength="400" bind:value={v.text} />
    <Act type="submit">Keep</Act>
    <button
      type="button"
      class="link"
      onclick={() =>
        void act(
          () => got(api.DELETE('/api/values/{value}', { params: { path: { value: v.name } } })),
          `${v.words} is taken away.`,
        )}>Take away<span class="sr-only"> {v.words}</span></button
    >
  </form>
{/each}
<form onsubmit={add}>
  <input
    class="entry"
    aria-label="What the new value is called"
    placeholder="for instance: help address"
    required
    maxlength="60"
    bind:value={words}
  />
  <input
    class="entry"
    aria-label="Text of the new value"
    placeholder="what stands in the pages"
    required
    maxlength="400"
    bind:value={text}
  />
  <Act type="submit">Add a value</Act>
</form>
{#if said}<p class="quiet" role="status">{said}</p>{/if}

<style>
  form {
    display: grid;
    grid-template-columns: 220px minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: center;
  }
</style>
