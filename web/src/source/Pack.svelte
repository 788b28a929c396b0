<script lang="ts">
  import SectionPick from './SectionPick.svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { resting } from '../frame/resting.svelte';
  import { kind, many } from '../marks/words';
  import type { Node } from './tree';

  /** A version, or one part of it, as a package; told first what the package cannot hold. */
  let {
    id,
    number,
    selected,
    close,
  }: { id: string; number: number; selected?: Node; close: () => void } = $props();

  type Format = 'CC_1_1' | 'CC_1_2' | 'CC_1_3' | 'THIN_1_3';
  const formats: [Format, string, string][] = [
    ['CC_1_3', 'Common Cartridge 1.3', 'the newest; assignments stay assignments'],
    ['CC_1_2', 'Common Cartridge 1.2', 'for systems that take nothing newer'],
    ['CC_1_1', 'Common Cartridge 1.1', 'the oldest; nearly every system takes it'],
    ['THIN_1_3', 'Thin Common Cartridge 1.3', 'links to web and tools alone, without files'],
  ];
  let format = $state<Format>('CC_1_3');
  let parameters = $state(true);
  let grading = $state(true);
  let instructorsOnly = $state(true);
  let only = $state(false);
  let section = $state('');
  let preview = $state.raw<Schemas['Preview'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let part = $derived(only && selected ? [selected.key] : []);
  let query = $derived({
    format,
    parameters,
    grading,
    instructorsOnly,
    part,
    section: section || undefined,
  });

  async function look() {
    try {
      preview = await got(
        api.GET('/api/masters/{id}/versions/{number}/package/losses', {
          params: { path: { id, number }, query },
        }),
      );
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  resting(
    () => JSON.stringify([number, query]),
    () => void look(),
  );
  let address = $derived(
    `/api/masters/${id}/versions/${number}/package?` +
      new URLSearchParams([
        ...Object.entries({ format, parameters, grading, instructorsOnly }).map(
          ([k, v]) => [k, String(v)] as [string, string],
        ),
        ...(section ? [['section', section] as [string, string]] : []),
        ...part.map((p) => ['part', p] as [string, string]),
      ]),
  );
  let handwork = $derived((preview?.losses ?? []).filter((l) => l.handwork));
</script>

<section aria-label="Package">
  <div class="head">
    <h2>{number ? `Version ${number}` : 'The draft'} as a package</h2>
    <Act onclick={close}>Close</Act>
  </div>
  <fieldset>
    <legend>Written as</legend>
    {#each formats as [f, name, why] (f)}
      <label><input type="radio" bind:group={format} value={f} /> {name} <i>{why}</i></label>
    {/each}
  </fieldset>
  <fieldset>
    <legend>With</legend>
    <label><input type="checkbox" bind:checked={grading} /> points, attempts, time limits</label>
    <label><input type="checkbox" bind:checked={parameters} /> parameters of tool links</label>
    <label
      ><input type="checkbox" bind:checked={instructorsOnly} /> what is only for instructors</label
    >
    {#if selected}
      <label
        ><input type="checkbox" bind:checked={only} /> only the {kind(selected.kind)} “{selected.title}”{selected.kind ===
        'MODULE'
          ? ' and what is in it'
          : ''}</label
      >
    {/if}
    <label class="for">filled in for <SectionPick label="no section: plain" bind:section /> </label>
  </fieldset>
  <Trouble of={trouble} />
  {#if preview}
    <h3>
      {preview.losses.length
        ? `What it cannot hold${handwork.length ? ', and the handwork it leaves at the other end' : ''}`
        : 'It holds all of it'}
    </h3>
    <ul aria-label="What the package cannot hold">
      {#each preview.losses as l (l.what)}
        <li>
          <span>{l.what}</span>
          {#if l.handwork}<b>{l.handwork}</b>{/if}
          <details>
            <summary class="quiet">{many(l.items, 'item')}</summary>
            {l.titles.join(', ')}{l.items > l.titles.length
              ? ` and ${l.items - l.titles.length} more`
              : ''}
          </details>
        </li>
      {/each}
    </ul>
    <p>
      <a class="act do" href={address} download>Download {many(preview.items, 'item')}</a>
    </p>
  {/if}
</section>

<style>
  section {
    padding: 16px 20px;
    overflow: auto;
    min-height: 0;
    grid-row: 1 / 4;
    display: grid;
    gap: 12px;
    align-content: start;
  }
  .head {
    display: flex;
    justify-content: space-between;
  }
  fieldset {
    display: grid;
    gap: 4px;
  }
  legend {
    color: var(--ink-2);
    padding-bottom: 4px;
  }
  i {
    color: var(--ink-3);
    font-style: normal;
    font-size: 13px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 110px;
    gap: 4px 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  li b {
    font-weight: 600;
    grid-column: 2;
  }
  li details {
    grid-column: 3;
  }
  li details[open] {
    grid-column: 1 / 4;
  }
  summary {
    cursor: pointer;
  }
</style>
