<script lang="ts">
  import { api, counted, got, type Kind, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { day, figure, kind, many, size } from '../marks/words';
  import { place } from '../frame/place.svelte';
  import FromShell from './FromShell.svelte';
  import MakeMaster from './MakeMaster.svelte';
  import { coming, takeIn } from './intake.svelte';

  let masters = $state.raw<Schemas['MasterView'][] | null>(null);
  /** Those in use before those that are retired. */
  let listed = $derived(
    [...(masters ?? [])].sort((a, b) => Number(!!a.retiredAt) - Number(!!b.retiredAt)),
  );
  let editions = $state.raw<Schemas['Edition'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let over = $state(false);
  let making = $state<'' | 'empty' | 'shell'>('');
  let archive: HTMLInputElement;
  let chooser: HTMLInputElement;
  keyList.of = [];

  async function load() {
    try {
      [masters, editions] = await Promise.all([
        got(api.GET('/api/masters')),
        got(api.GET('/api/cartridges')),
      ]);
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function take(files: FileList | null) {
    over = false;
    await Promise.all([...(files ?? [])].map((f) => takeIn(f)));
    await load();
  }

  async function fromArchive(file: File | undefined) {
    if (!file) return;
    const { intake } = await takeIn(file, 'archives');
    archive.value = '';
    if (intake?.master) place.go(`/sources/masters/${intake.master}`);
    else if (intake?.edition) place.go(`/sources/editions/${intake.edition}`);
    else await load();
  }

  function summary(e: Schemas['Edition']): string {
    const counts = counted<Kind>(e.report.counts ?? {}).filter(([k]) => k !== 'MODULE');
    counts.sort((a, b) => b[1] - a[1]);
    return counts
      .slice(0, 4)
      .map(([k, n]) => `${figure(n)} ${kind(k, n)}`)
      .join(', ');
  }

  onEscape(() => {
    if (!making) return false;
    making = '';
    return true;
  });
</script>

<svelte:document
  ondragover={(e) => {
    if (e.dataTransfer?.types.includes('Files')) {
      e.preventDefault();
      over = true;
    }
  }}
  ondragleave={(e) => {
    if (!e.relatedTarget) over = false;
  }}
  ondrop={(e) => {
    if (e.dataTransfer?.files.length) {
      e.preventDefault();
      void take(e.dataTransfer.files);
    }
  }}
/>

<div class="page" class:over>
  <main>
    <div class="head">
      <h1>{masters ? many(masters.length, 'master') : 'Masters'}</h1>
      <a class="link" href="/sources/library">Look through all items</a>
      <a class="link" href="/sources/beside">Two side by side</a>
      <span class="can">
        <Act onclick={() => (making = making === 'empty' ? '' : 'empty')}>Begin an empty master</Act
        >
        <Act onclick={() => (making = making === 'shell' ? '' : 'shell')}>From a shell …</Act>
        <Act onclick={() => archive.click()}>From an archive …</Act>
        <input
          bind:this={archive}
          type="file"
          accept=".zip"
          class="sr-only"
          aria-label="Archive of a source"
          tabindex="-1"
          onchange={() => void fromArchive(archive.files?.[0])}
        />
      </span>
    </div>
    <Trouble of={trouble} />
    {#if making === 'empty'}<MakeMaster title="" cancel={() => (making = '')} />{/if}
    {#if making === 'shell'}<FromShell cancel={() => (making = '')} />{/if}
    {#each listed as m (m.id)}
      <a class="master" href="/sources/masters/{m.id}">
        <span class="name">
          <b class="fig">{m.code}</b> <span class="cut">{m.title}</span>
          <span class="faint cut"
            >{m.retiredAt ? 'Retired · ' : ''}{many(m.items, 'item')}{m.builtOn
              ? ' · built on ' + m.builtOn
              : ''}</span
          >
        </span>
        <span class="trail">
          {#each m.versions.slice(-4) as v (v.id)}
            <span class="v fig" title={v.note}>
              v{v.number} · {day(v.frozenAt)}
              <span class="faint sects">{v.sections ? many(v.sections, 'section') : ''}</span>
            </span>
          {:else}
            <span class="v draft fig">draft only</span>
          {/each}
        </span>
      </a>
    {:else}
      {#if masters}
        <p class="quiet none">
          No master yet. Take in a cartridge on the right, look inside, and make it one.
        </p>
      {:else}<div class="skeleton tall"></div>{/if}
    {/each}
  </main>
  <aside class="aside">
    <h1>{editions ? many(editions.length, 'cartridge edition') : 'Cartridges'}</h1>
    <p class="quiet">
      Packages taken in from outside. Drop a .imscc or .zip anywhere on this page.
    </p>
    <input
      bind:this={chooser}
      type="file"
      accept=".imscc,.zip"
      multiple
      class="sr-only"
      aria-label="Cartridge file"
      tabindex="-1"
      onchange={(e) => take(e.currentTarget.files)}
    />
    <p><Act main onclick={() => chooser.click()}>Take in a cartridge</Act></p>
    <div aria-live="polite">
      {#each coming.list as c, i (i)}
        <div class="coming" class:bad={c.trouble || c.intake?.state === 'REFUSED'}>
          <b class="cut">{c.name}</b>
          {#if c.trouble}
            <span>{c.trouble.message} {c.trouble.remedy}</span>
          {:else if c.intake?.state === 'REFUSED'}
            <span
              >{c.intake.place ? c.intake.place + ': ' : ''}{c.intake.problem}
              {c.intake.remedy} Nothing was kept.</span
            >
          {:else if c.intake?.state === 'DONE'}
            <span>
              {c.intake.knownAlready ? 'It was here already.' : 'Taken in.'}
              <a class="link" href="/sources/editions/{c.intake.edition}">Look inside</a>
            </span>
          {:else if c.intake}
            <progress max={c.intake.total || 1} value={c.intake.done} aria-label="Reading {c.name}"
            ></progress>
            <span class="quiet cut"
              >reading {figure(c.intake.done)} of {figure(c.intake.total)} · {c.intake.what}</span
            >
          {:else}
            <progress max={c.size} value={c.sent} aria-label="Sending {c.name}"></progress>
            <span class="quiet">sending {size(c.sent)} of {size(c.size)}</span>
          {/if}
        </div>
      {/each}
    </div>
    {#each editions ?? [] as e (e.id)}
      <a class="edition" href="/sources/editions/{e.id}">
        <b class="cut">{e.title}</b>
        <span class="faint fig">edition {e.number}</span>
        <span class="quiet cut sub">{summary(e)}</span>
        <span class="faint sub"
          >{e.report.facts?.profile} · {size(e.size)} · <When at={e.takenAt} /></span
        >
      </a>
    {/each}
  </aside>
</div>
<HandFrame
  title={over ? 'Let go to take it in' : 'Sources'}
  words="Masters you maintain, and cartridges they are made from."
/>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside-wide);
  }
  .over {
    outline: 2px dashed var(--do);
    outline-offset: -6px;
  }
  main {
    padding: 12px 16px;
    overflow: auto;
    min-height: 0;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
    padding-bottom: 8px;
  }
  .can {
    margin-left: auto;
  }
  .master {
    display: grid;
    grid-template-columns: minmax(200px, 300px) minmax(0, 1fr);
    gap: 16px;
    align-items: center;
    padding: 10px 8px;
    border-bottom: 1px solid var(--line);
  }
  .master:hover,
  .edition:hover {
    background: var(--do-soft);
  }
  .name {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0 8px;
  }
  .name .faint {
    grid-column: 1 / 3;
    font-size: 13px;
  }
  .trail {
    display: flex;
  }
  .v {
    position: relative;
    border-top: 2px solid var(--calm);
    padding: 5px 8px 0 0;
    flex: 1;
    max-width: 190px;
    color: var(--ink-2);
    white-space: nowrap;
  }
  .sects {
    display: block;
    line-height: 14px;
  }
  .v:before {
    content: '';
    position: absolute;
    left: 0;
    top: -6px;
    width: 2px;
    height: 10px;
    background: var(--calm);
  }
  .v.draft {
    border-top-style: dashed;
    border-color: var(--do);
  }
  .aside {
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  .edition {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 8px 4px;
    border-bottom: 1px solid var(--line-soft);
  }
  .sub {
    grid-column: 1 / 3;
    font-size: 13px;
  }
  .coming {
    display: grid;
    gap: 2px;
    padding: 8px 10px;
    border-left: 3px solid var(--do);
    background: var(--raise);
    margin-bottom: 4px;
  }
  .coming.bad {
    border-color: var(--harm);
    background: var(--harm-soft);
  }
  progress {
    width: 100%;
    height: 8px;
    accent-color: var(--do);
  }
  .none {
    padding: 24px 0;
  }
  .head > * {
    white-space: nowrap;
  }
  .can {
    display: flex;
    gap: 8px;
  }
</style>
