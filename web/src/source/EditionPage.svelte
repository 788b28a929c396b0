<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import HandFrame from '../lib/HandFrame.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import When from '../lib/When.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { place } from '../lib/place.svelte';
  import { kind, many, size } from '../lib/words';
  import ItemFacts from './ItemFacts.svelte';
  import MakeMaster from './MakeMaster.svelte';
  import Outline from './Outline.svelte';
  import type { Node } from './tree';

  let { id }: { id: string } = $props();
  let edition = $state.raw<Schemas['Edition'] | null>(null);
  let nodes = $state.raw<Node[]>([]);
  let item = $state.raw<Schemas['ItemView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let making = $state(false);
  keyList.of = [['arrows', 'From item to item, open and close']];

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
  $effect(() => {
    const key = selected;
    if (!key) {
      item = null;
      return;
    }
    void got(
      api.GET('/api/cartridges/editions/{id}/items/{key}', { params: { path: { id, key } } }),
    )
      .then((i) => {
        if (key === selected) item = i;
      })
      .catch((e) => (trouble = e));
  });
  let report = $derived(edition?.report);
  let counts = $derived(Object.entries(report?.counts ?? {}).sort((a, b) => b[1] - a[1]));
  let hosts = $derived(Object.entries(report?.toolHosts ?? {}));
</script>

<div class="page">
  <header>
    {#if edition}
      <h1>{edition.title}</h1>
      <span class="quiet cut">
        Cartridge, edition {edition.number} · {report?.facts?.profile} · {size(edition.size)} · taken
        in by {edition.takenBy}
        <When at={edition.takenAt} />
      </span>
      <span class="can">
        {#if selected}<Act onclick={() => place.set({ item: '' })}>Reading report</Act>{/if}
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
        <ItemFacts {item} page="/api/cartridges/editions/{id}/items/{item.key}/page" />
      {:else if report}
        <div class="report">
          <h2>Reading report</h2>
          {#if report.facts?.description}<p>{report.facts.description}</p>{/if}
          <dl>
            <dt>Holds</dt>
            <dd>
              {#each counts as [k, n], i (k)}{i ? ', ' : ''}{n} {kind(k, n)}{/each}; {many(
                report.files ?? 0,
                'file',
              )} of
              {size(report.bytes ?? 0)} in all
            </dd>
            <dt>Rights</dt>
            <dd>{report.facts?.rights || 'The package says nothing.'}</dd>
            <dt>Language</dt>
            <dd>{report.facts?.language || 'The package says nothing.'}</dd>
            <dt>Access</dt>
            <dd>
              {report.facts?.restricted
                ? 'Asks for authorisation before use.'
                : 'Open; asks for no authorisation.'}
            </dd>
            <dt>Tool hosts</dt>
            <dd>
              {#each hosts as [host, n] (host)}<span class="fig">{host}</span> ({many(n, 'link')})
              {:else}None.{/each}
            </dd>
            <dt>Only for instructors</dt>
            <dd>
              {#if report.instructorsOnly?.length}
                <details>
                  <summary
                    >{many(report.instructorsOnly.length, 'item')}, kept hidden from students</summary
                  >
                  <ul>
                    {#each report.instructorsOnly as t, i (i)}<li>{t}</li>{/each}
                  </ul>
                </details>
              {:else}Nothing.{/if}
            </dd>
            <dt>Not in the outline</dt>
            <dd>
              {report.unplaced ? many(report.unplaced, 'item') + ', put at the end' : 'Nothing.'}
            </dd>
            <dt>Leads nowhere</dt>
            <dd>
              {#if report.deadReferences?.length}
                <ul class="mind">
                  {#each report.deadReferences as f, i (i)}<li>
                      <span class="fig">{f.where}</span>
                      {f.what}
                    </li>{/each}
                </ul>
              {:else}No dead reference.{/if}
            </dd>
            <dt>Not understood</dt>
            <dd>
              {#if report.notUnderstood?.length}
                <ul class="mind">
                  {#each report.notUnderstood as f, i (i)}<li>
                      <span class="fig">{f.where}</span>
                      {f.what}
                    </li>{/each}
                </ul>
              {:else}Everything was understood.{/if}
            </dd>
          </dl>
          <p class="quiet">Choose an item on the left to see it as students would.</p>
        </div>
      {/if}
    </main>
  </div>
</div>
<HandFrame
  title={edition ? 'Nothing is delivered from a cartridge' : ''}
  words="Make it a master first: drop what you do not want, arrange, then freeze a version."
/>

<style>
  .page {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    height: calc(100vh - 44px - 52px);
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
    white-space: nowrap;
  }
  .can {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
  .both {
    display: grid;
    grid-template-columns: 430px minmax(0, 1fr);
    min-height: 0;
    grid-row: 3;
  }
  .tree-side {
    border-right: 1px solid var(--line);
    min-height: 0;
  }
  .report {
    padding: 22px 36px;
    max-width: 820px;
    display: grid;
    gap: 12px;
  }
  dl {
    display: grid;
    grid-template-columns: 150px 1fr;
    row-gap: 8px;
  }
  dt {
    color: var(--ink-2);
  }
  summary {
    cursor: pointer;
  }
  .mind li {
    color: var(--mind);
  }
</style>
