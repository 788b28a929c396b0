<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { resting } from '../frame/resting.svelte';
  import { along } from '../lists/along';
  import Rows from '../lists/Rows.svelte';
  import { figure, kind, many } from '../marks/words';
  import Facets from './Facets.svelte';
  import ItemAbout from './ItemAbout.svelte';
  import ItemFacts from './ItemFacts.svelte';
  import { clip } from './clip.svelte';

  type Found = Schemas['FoundItem'];
  type Facet = Schemas['FacetCount']['facet'];
  let answer = $state.raw<Schemas['LibraryAnswer'] | null>(null);
  let items = $state.raw<Found[]>([]);
  let trouble = $state.raw<unknown>(null);
  let item = $state.raw<Schemas['ItemView'] | null>(null);
  let chosen = $state.raw<ReadonlySet<string>>(new Set());
  let masters = $state.raw<Schemas['MasterView'][]>([]);
  let into = $state('');
  let taken = $state('');
  let list: { reveal: (i: number) => void; page: () => number };
  keyList.of = [
    ['up, down', 'From item to item'],
    ['Space', 'Choose it'],
  ];

  let q = $derived(place.get('q'));
  let facets = $derived(place.query.getAll('f'));
  const id = (f: Found) => `${f.edition ?? f.master}/${f.key}`;
  let at = $derived(items.findIndex((f) => id(f) === place.get('item')));
  let selected = $derived(items[at]);

  async function search(from: number) {
    try {
      const a = await got(
        api.GET('/api/library', { params: { query: { q, facet: facets, from } } }),
      );
      answer = a;
      items = from ? [...items, ...a.items] : a.items;
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  resting(
    () => JSON.stringify([q, facets]),
    () => void search(0),
  );
  $effect(() => {
    void got(api.GET('/api/masters')).then(
      (m) => (masters = m),
      (e) => (trouble = e),
    );
  });

  const page = (f: Found) =>
    f.edition
      ? `/api/cartridges/editions/${f.edition}/items/${f.key}/page`
      : `/api/masters/${f.master}/versions/0/items/${f.key}/page`;
  const home = (f: Found) =>
    (f.edition ? `/sources/editions/${f.edition}` : `/sources/masters/${f.master}`) +
    `?item=${f.key}`;

  async function open(f: Found) {
    try {
      item = f.edition
        ? await got(
            api.GET('/api/cartridges/editions/{id}/items/{key}', {
              params: { path: { id: f.edition, key: f.key } },
            }),
          )
        : await got(
            api.GET('/api/masters/{id}/versions/{number}/items/{key}', {
              params: { path: { id: f.master!, number: 0, key: f.key } },
            }),
          );
    } catch (e) {
      trouble = e;
    }
  }
  resting(
    () => selected && id(selected),
    () => (selected ? void open(selected) : (item = null)),
  );

  function narrow(facet: Facet, value: string) {
    const f = `${facet}:${value}`;
    const next = new URLSearchParams(location.search);
    next.delete('f');
    const all = facets.includes(f) ? facets.filter((x) => x !== f) : [...facets, f];
    all.forEach((x) => next.append('f', x));
    next.delete('item');
    place.go(location.pathname + '?' + next, true);
  }

  function toggle(f: Found) {
    const next = new Set(chosen);
    if (!next.delete(id(f))) next.add(id(f));
    chosen = next;
  }

  function picked(e: MouseEvent, f: Found) {
    if ((e.target as Element).closest('.box') || e.ctrlKey || e.metaKey) toggle(f);
    else place.set({ item: id(f) });
  }

  function keys(e: KeyboardEvent) {
    const to = along(e.key, at, items.length, list.page());
    if (to !== undefined && items[to]) {
      place.set({ item: id(items[to]) });
      list.reveal(to);
      if (to > items.length - 10 && answer && items.length < answer.total)
        void search(items.length);
    } else if (e.key === ' ' && selected) toggle(selected);
    else return;
    e.preventDefault();
  }

  let meant = $derived(items.filter((f) => chosen.has(id(f))));

  async function take() {
    const groups = new Map<string, Found[]>();
    for (const f of meant) {
      const source = f.edition ?? f.master!;
      groups.set(source, [...(groups.get(source) ?? []), f]);
    }
    let along = 0;
    try {
      for (const group of groups.values()) {
        const [first] = group;
        const done = await got(
          api.POST('/api/masters/{id}/draft/take-over', {
            params: { path: { id: into } },
            body: {
              edition: first.edition,
              master: first.master,
              version: 0,
              keys: group.map((f) => f.key),
            },
          }),
        );
        along += done.along;
      }
      const code = masters.find((m) => m.id === into)?.code;
      taken =
        `${many(meant.length, 'item')} taken into ${code}` +
        (along ? `, and ${many(along, 'item')} that they need` : '');
      chosen = new Set();
    } catch (e) {
      trouble = e;
    }
  }

  function copy() {
    const [first] = meant;
    const same = meant.filter((f) => f.edition === first.edition && f.master === first.master);
    clip.of = {
      edition: first.edition,
      master: first.master,
      version: 0,
      keys: same.map((f) => f.key),
      cut: false,
      title: first.title,
    };
    chosen = new Set();
    taken = `${many(same.length, 'item')} copied: open a master and put them there`;
  }

  function use(f: Found): string {
    if (!f.sections) return '';
    const words = [`in ${many(f.sections, 'section')}`];
    if (f.changed) words.push(`${figure(f.changed)} changed it`);
    if (f.gone) words.push(`${figure(f.gone)} took it out`);
    return words.join(', ');
  }

  onEscape(() => {
    if (chosen.size) chosen = new Set();
    else if (place.get('item')) place.set({ item: '' });
    else return false;
    return true;
  });
</script>

<div class="page">
  <Facets {q} {facets} counts={answer?.counts ?? []} {narrow} />
  <main>
    <div class="head">
      <h1>{answer ? many(answer.total, 'item') : 'Looking …'}</h1>
      <span class="quiet">of the newest editions and the drafts within your reach</span>
    </div>
    <Trouble of={trouble} />
    <div class="list">
      <Rows
        rows={items}
        height={46}
        role="listbox"
        label="Items"
        aria-multiselectable="true"
        tabindex={0}
        aria-activedescendant={selected ? 'found-' + at : undefined}
        onkeydown={keys}
        bind:this={list}
      >
        {#snippet row(f: Found, i: number)}
          <!-- svelte-ignore a11y_click_events_have_key_events -->
          <div
            class="row"
            class:at={i === at}
            class:chosen={chosen.has(id(f))}
            id="found-{i}"
            role="option"
            tabindex="-1"
            aria-selected={chosen.has(id(f)) || i === at}
            onclick={(e) => picked(e, f)}
          >
            <span class="box" class:on={chosen.has(id(f))} aria-hidden="true"></span>
            <span class="t cut"
              >{f.title}
              <span class="faint"
                >{kind(f.kind)}{f.instructorsOnly ? ' · instructors only' : ''}{f.asks
                  ? ' · asks for authorisation'
                  : ''}</span
              ></span
            >
            <span class="faint cut from">{f.source}</span>
            <span class="quiet cut used">{use(f)}</span>
          </div>
        {/snippet}
      </Rows>
      {#if answer && !items.length}
        <p class="quiet none">
          Nothing here has these words. Try fewer of them, or take a value on the left away.
        </p>
      {:else if answer && items.length < answer.total}
        <p class="more">
          <button type="button" class="link" onclick={() => void search(items.length)}
            >Show {figure(Math.min(100, answer.total - items.length))} more</button
          >
        </p>
      {/if}
    </div>
  </main>
  <section class="pane" aria-label="Preview">
    {#if item && selected}
      <div class="ph">
        <b class="cut">{item.title}</b>
        <a class="link" href={home(selected)}>Open where it stands</a>
      </div>
      <ItemAbout {item} />
      <ItemFacts {item} page={page(selected)} />
    {:else}
      <p class="quiet hint">Choose an item to see it as students would.</p>
    {/if}
  </section>
</div>
<HandFrame
  title={chosen.size ? `${many(chosen.size, 'item')} chosen` : taken || 'No item chosen'}
  words={chosen.size
    ? 'What they need comes along: files, and the banks that quizzes draw from.'
    : 'Choose items to take them into a master.'}
>
  {#if chosen.size}
    <select class="entry" aria-label="Master to take them into" bind:value={into}>
      <option value="">into which master?</option>
      {#each masters as m (m.id)}<option value={m.id}>{m.code} {m.title}</option>{/each}
    </select>
    <Act onclick={copy}>Copy</Act>
    <Act main disabled={!into} onclick={() => void take()}
      >Take {many(chosen.size, 'item')} over</Act
    >
  {/if}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: 230px minmax(0, 1fr) minmax(0, 1fr);
    min-height: 0;
  }
  main {
    display: flex;
    flex-direction: column;
    min-height: 0;
    border-right: 1px solid var(--line);
  }
  .head {
    padding: 12px 16px 8px;
  }
  .list {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
    border-top: 1px solid var(--line);
  }
  .row {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) minmax(0, 0.9fr);
    grid-template-rows: 20px 18px;
    height: 46px;
    padding: 4px 14px;
    border-bottom: 1px solid var(--line-soft);
    cursor: default;
  }
  .row .box {
    grid-row: 1 / 3;
    align-self: center;
  }
  .row .t {
    grid-column: 2 / 4;
  }
  .from,
  .used {
    font-size: 12.5px;
  }
  .used {
    text-align: right;
  }
  .row.at {
    background: var(--do-soft);
    box-shadow: inset 3px 0 0 var(--do);
  }
  .row.chosen {
    background: var(--mind-soft);
  }
  .none,
  .more,
  .hint {
    padding: 16px;
  }
  .pane {
    display: flex;
    flex-direction: column;
    min-height: 0;
    background: var(--raise);
  }
  .ph {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 10px 20px 6px;
    background: var(--paper);
    border-bottom: 1px solid var(--line-soft);
    white-space: nowrap;
  }
</style>
