<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { resting } from '../frame/resting.svelte';
  import { kind, many } from '../marks/words';
  import MadePackages from './MadePackages.svelte';
  import SectionPick from './SectionPick.svelte';
  import { formats, type Format } from './formats';
  import type { Node } from './tree';

  /** A version, or one part of it, as a package; told first what the package cannot hold. */
  let {
    id,
    number,
    selected,
    close,
  }: { id: string; number: number; selected?: Node; close: () => void } = $props();

  const LARGE = 200;
  let format = $state<Format>('CC_1_3');
  let parameters = $state(true);
  let grading = $state(true);
  let instructorsOnly = $state(true);
  let only = $state(false);
  let section = $state('');
  let advice = $state.raw<Schemas['PlatformAdvice'][]>([]);
  let ordered = $state(0);
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

  void got(api.GET('/api/platforms/advice')).then((a) => {
    advice = a.filter((x) => x.format || x.advice);
    if (advice.length === 1 && advice[0].format) format = advice[0].format;
  });

  async function order() {
    const part = only && selected ? [selected.key] : [];
    try {
      await got(
        api.POST('/api/masters/{id}/packages', {
          params: { path: { id } },
          body: {
            version: number,
            format,
            parameters,
            grading,
            instructorsOnly,
            parts: part,
            section: section || undefined,
          },
        }),
      );
      trouble = null;
      ordered++;
    } catch (e) {
      trouble = e;
    }
  }

  async function look() {
    const asked = query;
    try {
      const found = await got(
        api.GET('/api/masters/{id}/versions/{number}/package/losses', {
          params: { path: { id, number }, query: asked },
        }),
      );
      // an answer that comes when something else was chosen meanwhile is not shown
      if (asked === query) preview = found;
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
    {#each advice as a (a.id)}
      <p class="advice">
        For {a.name} the college advises {formats.find(([f]) => f === a.format)?.[1] ??
          'no format of its own'}{a.advice ? `: ${a.advice}` : '.'}
        {#if a.format && a.format !== format}
          <button type="button" class="link" onclick={() => (format = a.format!)}>Take it</button>
        {/if}
      </p>
    {/each}
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
  <p>
    <a class="link" href="/api/masters/{id}/archive" download>Keep an archive of all versions</a>
    <span class="quiet">to move this master to another installation, or to keep it</span>
  </p>
  <MadePackages {id} {ordered} />
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
      {#if preview.items >= LARGE}
        <Act main onclick={() => void order()}>Make a package of {many(preview.items, 'item')}</Act>
        <span class="quiet">It is made in the background, and kept for seven days.</span>
      {:else}
        <a class="act do" href={address} download>Download {many(preview.items, 'item')}</a>
      {/if}
    </p>
  {/if}
</section>

<style>
  .advice {
    color: var(--ink-2);
  }
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
