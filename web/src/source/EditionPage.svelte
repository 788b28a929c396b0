<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { resting } from '../frame/resting.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { place } from '../frame/place.svelte';
  import { size } from '../marks/words';
  import ItemAbout from './ItemAbout.svelte';
  import ItemFacts from './ItemFacts.svelte';
  import MakeMaster from './MakeMaster.svelte';
  import Outline from './Outline.svelte';
  import Report from './Report.svelte';
  import { clip } from './clip.svelte';
  import type { Node } from './tree';

  let { id }: { id: string } = $props();
  let edition = $state.raw<Schemas['Edition'] | null>(null);
  let nodes = $state.raw<Node[]>([]);
  let item = $state.raw<Schemas['ItemView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let making = $state(false);
  keyList.of = [
    ['arrows', 'From item to item, open and close'],
    ['Page up, Page down, Home, End', 'A page on, to the ends'],
  ];

  async function load() {
    try {
      const params = { path: { id } };
      edition = await got(api.GET('/api/cartridges/editions/{id}', { params }));
      nodes = await got(api.GET('/api/cartridges/editions/{id}/outline', { params }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  let selected = $derived(place.get('item'));
  async function loadItem(key: string) {
    try {
      const params = { path: { id, key } };
      const i = await got(api.GET('/api/cartridges/editions/{id}/items/{key}', { params }));
      if (key === selected) item = i;
    } catch (e) {
      trouble = e;
    }
  }
  resting(
    () => selected,
    (key) => (key ? void loadItem(key) : (item = null)),
  );
  let report = $derived(edition?.report);
  /** Masters that are built on an older edition of it. */
  let built = $state.raw<Schemas['MasterView'][]>([]);
  $effect(() => {
    void got(api.GET('/api/masters')).then(
      (all) => (built = all.filter((m) => m.newerEdition === id)),
      (e) => (trouble = e),
    );
  });
  let ours = $derived.by(() => {
    const o = edition?.ours;
    if (!o)
      return 'Make it a master first: drop what you do not want, arrange, then freeze a version.';
    const what = o.version ? `version ${o.version}` : 'the draft';
    return o.version && o.version < o.newest
      ? `Written here from ${o.code}, ${what}; the newest is version ${o.newest}.`
      : `Written here from ${o.code}, ${what}.`;
  });

  onEscape(() => {
    if (making) making = false;
    else if (place.get('item')) place.set({ item: '' });
    else return false;
    return true;
  });
</script>

<div class="page">
  <header>
    {#if edition}
      <h1 class="cut" title={edition.title}>{edition.title}</h1>
      <span class="quiet cut">
        Cartridge, edition {edition.number} · {report?.facts?.profile} · {size(edition.size)} · taken
        in by {edition.takenBy}
        <When at={edition.takenAt} />
      </span>
      <span class="can">
        {#if selected}<Act onclick={() => place.set({ item: '' })}>Reading report</Act>{/if}
        {#if selected}
          <Act
            title="Ctrl C; then open a master and put it there"
            onclick={() =>
              (clip.of = {
                edition: id,
                version: 0,
                keys: [selected],
                cut: false,
                title: nodes.find((n) => n.key === selected)?.title ?? '',
              })}>{clip.of?.edition === id && clip.of.keys[0] === selected ? 'Copied' : 'Copy'}</Act
          >
        {/if}
        <Act main onclick={() => (making = true)}>Make it a master</Act>
      </span>
    {:else}
      <h1>Opening the cartridge …</h1>
    {/if}
  </header>
  <Trouble of={trouble} />
  <div class="both">
    <section class="tree-side">
      <Outline {nodes} {selected} select={(key) => place.set({ item: key })} />
    </section>
    <main class="surface">
      {#if making && edition}
        <MakeMaster edition={edition.id} title={edition.title} cancel={() => (making = false)} />
      {:else if item}
        <div class="seen">
          <ItemAbout {item} />
          <ItemFacts {item} page="/api/cartridges/editions/{id}/items/{item.key}/page" />
        </div>
      {:else if report}
        <Report edition={edition!} changed={() => void load()} />
      {/if}
    </main>
  </div>
</div>
<HandFrame title={edition ? 'Nothing is delivered from a cartridge' : ''} words={ours}>
  {#each built as m (m.id)}
    <Act onclick={() => place.go(`/sources/merge/${m.id}/${id}`)}>Compare with {m.code}</Act>
  {/each}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
  }
  header {
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 10px 16px;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
    min-width: 0;
  }
  h1 {
    max-width: 60%;
    flex: none;
  }
  .can {
    margin-left: auto;
    flex: none;
    display: flex;
    gap: 8px;
  }
  .both {
    display: grid;
    grid-template-columns: var(--tree) minmax(0, 1fr);
    min-height: 0;
    grid-row: 3;
  }
  .seen {
    display: flex;
    flex-direction: column;
    height: 100%;
  }
  .tree-side {
    border-right: 1px solid var(--line);
    min-height: 0;
  }
</style>
