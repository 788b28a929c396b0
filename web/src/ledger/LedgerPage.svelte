<script lang="ts">
  import { api, got, type How, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { aspectList, exact, kind } from '../marks/words';
  import { file, query, said, type Asked } from './ledger';

  /** Who got what, when and from whom; the newest first. */
  type Line = Schemas['LedgerLine'];
  const page = 200;
  let lines = $state.raw<Line[] | null>(null);
  let masters = $state.raw<Schemas['MasterView'][]>([]);
  let more = $state(false);
  let busy = $state(false);
  let trouble = $state.raw<unknown>(null);
  let asked = $derived<Asked>({
    section: place.get('section'),
    master: place.get('master'),
    version: place.get('version'),
    item: place.get('item'),
    delivery: place.get('delivery'),
    person: place.get('person'),
    from: place.get('from'),
    to: place.get('to'),
  });
  keyList.of = [];

  $effect(() => {
    void got(api.GET('/api/masters')).then(
      (m) => (masters = m),
      (e) => (trouble = e),
    );
  });

  let turn = 0;
  async function load(before?: number) {
    const mine = ++turn;
    busy = true;
    try {
      const params = { query: { ...query(asked), before, most: page } };
      const next = await got(api.GET('/api/ledger/receipts', { params }));
      if (mine !== turn) return;
      lines = before ? [...(lines ?? []), ...next] : next;
      more = next.length === page;
      trouble = null;
    } catch (e) {
      if (mine === turn) trouble = e;
    }
    if (mine === turn) busy = false;
  }
  $effect(() => {
    void asked;
    const timer = setTimeout(() => void load(), 200);
    return () => clearTimeout(timer);
  });

  const how: Record<How, string> = {
    ADDED: 'added',
    GIVEN_BACK: 'given back',
    UPDATED: 'updated',
    ADOPTED: 'adopted',
    KEPT: 'kept',
    RETIRED: 'taken out',
  };
  const entries = [
    ['section', 'Section', 'text', '100px'],
    ['item', 'Item', 'text', '170px'],
    ['version', 'Version', 'number', '76px'],
    ['person', 'Sent by', 'text', '120px'],
    ['from', 'From', 'date', '136px'],
    ['to', 'To', 'date', '136px'],
  ] as const;
</script>

<main class="page folio">
  <div class="head">
    <h1>{lines ? said(asked, lines.length, more) : 'Reading the ledger …'}</h1>
    <a class="link" href="/deliveries">Deliveries</a>
  </div>
  <form class="ask" role="search" onsubmit={(e) => e.preventDefault()}>
    <label
      >Master
      <select
        class="entry"
        value={asked.master}
        onchange={(e) => place.set({ master: e.currentTarget.value })}
      >
        <option value="">any</option>
        {#each masters as m (m.id)}<option value={m.id}>{m.code}</option>{/each}
      </select></label
    >
    {#each entries as [name, words, type, width] (name)}
      <label
        >{words}
        <input
          class="entry"
          style="width:{width}"
          {type}
          value={asked[name]}
          oninput={(e) => place.set({ [name]: e.currentTarget.value })}
        /></label
      >
    {/each}
    {#if asked.delivery}
      <button type="button" class="link" onclick={() => place.set({ delivery: '' })}
        >of one delivery; show all</button
      >
    {/if}
  </form>
  <Trouble of={trouble} />
  {#if lines?.length}
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th>When</th><th>Section</th><th>Master</th><th>Item</th><th>What</th><th>Sent by</th>
          </tr>
        </thead>
        <tbody>
          {#each lines as l (l.id)}
            <tr>
              <td class="fig" title={exact(l.at)}>{l.at.slice(0, 16).replace('T', ' ')}</td>
              <td><a class="fig link" href="/sections/{l.section}">{l.code}</a></td>
              <td class="fig">{l.masterCode} v{l.number}</td>
              <td class="cut">{l.title} <span class="quiet">{kind(l.kind)}</span></td>
              <td
                >{how[l.how]}
                <span class="quiet"
                  >{l.writes.length && l.writes.length < 6 ? aspectList(l.writes) : ''}</span
                ></td
              >
              <td class="cut"><a class="link" href="/deliveries/{l.delivery}">{l.by}</a></td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if more}<p class="more">
          <Act disabled={busy} onclick={() => load(lines?.at(-1)?.id)}>Older ones</Act>
        </p>{/if}
    </div>
  {:else if lines && !trouble}
    <p class="quiet none">No receipt fits. Leave something out above, or widen the days.</p>
  {/if}
</main>
<HandFrame title="Every receipt within reach" words="Receipts are only ever added.">
  <Act onclick={() => window.print()}>Print</Act>
  <a class="act-link" href={file(asked, 'CSV')} download>CSV</a>
  <a class="act-link" href={file(asked, 'XLSX')} download>XLSX</a>
</HandFrame>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  .ask {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: end;
    padding: 8px 0 10px;
  }
  .ask label {
    display: grid;
    font-size: 13px;
    color: var(--ink-2);
  }
  .scroll {
    overflow: auto;
    min-height: 0;
    border-top: 1px solid var(--line);
  }
  .page {
    display: flex;
    flex-direction: column;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
    position: sticky;
    top: 0;
    background: var(--ground);
  }
  th,
  td {
    padding: 3px 10px 3px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  th:nth-child(1) {
    width: 150px;
  }
  th:nth-child(2) {
    width: 80px;
  }
  th:nth-child(3) {
    width: 110px;
  }
  th:nth-child(5) {
    width: 250px;
  }
  th:nth-child(6) {
    width: 150px;
  }
  .more {
    padding: 10px 0;
  }
  .none {
    padding: 16px 0;
  }
  .act-link {
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 4px 12px;
    background: var(--raise);
  }
  .act-link:hover {
    background: var(--do-soft);
  }
  @media print {
    .ask,
    .more,
    .head .link {
      display: none;
    }
    .scroll {
      overflow: visible;
    }
  }
</style>
