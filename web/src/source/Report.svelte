<script lang="ts">
  import { api, counted, got, type Kind, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { figure, kind, many, size } from '../marks/words';
  import Access from './Access.svelte';
  import EditionOf from './EditionOf.svelte';
  import Findings from './Findings.svelte';
  import FrameHosts from './FrameHosts.svelte';
  import Fresh from './Fresh.svelte';

  let { edition, changed }: { edition: Schemas['Edition']; changed: () => void } = $props();
  let report = $derived(edition.report);
  let counts = $derived(counted<Kind>(report.counts ?? {}).sort((a, b) => b[1] - a[1]));
  let questions = $derived(counted<string>(report.questions ?? {}).sort((a, b) => b[1] - a[1]));
  let others = $derived(Object.entries(report.others ?? {}));
  let standards = $derived(Object.entries(report.standards ?? {}));
  const types: Record<string, string> = {
    MULTIPLE_CHOICE: 'one of several',
    MULTIPLE_RESPONSE: 'several of several',
    TRUE_FALSE: 'true or false',
    FILL_IN: 'fill in',
    PATTERN_MATCH: 'fill in, a part is enough',
    ESSAY: 'essay',
    OTHER: 'of another type, kept as they came',
  };
  let hosts = $derived(Object.entries(report.toolHosts ?? {}));
  let files = $state.raw<Schemas['PackageFile'][]>([]);
  let more = $state(true);
  let trouble = $state.raw<unknown>(null);

  async function next() {
    try {
      const after = files.at(-1)?.path ?? '';
      const some = await got(
        api.GET('/api/cartridges/editions/{id}/files', {
          params: { path: { id: edition.id }, query: { after } },
        }),
      );
      files = [...files, ...some];
      more = some.length === 500;
    } catch (e) {
      trouble = e;
    }
  }
</script>

<div class="report">
  <h2>Reading report</h2>
  {#if report.facts?.description}<p>{report.facts.description}</p>{/if}
  <dl>
    <dt>Edition of</dt>
    <dd><EditionOf {edition} {changed} /></dd>
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
    {#if edition.publisher}
      <dt>Published by</dt>
      <dd>{edition.publisher}</dd>
    {/if}
    <dt>Next term</dt>
    <dd>
      <Fresh
        on={edition.freshEachTerm}
        set={(on) => {
          const params = { path: { cartridge: edition.cartridge } };
          return on
            ? api.PUT('/api/cartridges/{cartridge}/fresh', { params })
            : api.DELETE('/api/cartridges/{cartridge}/fresh', { params });
        }}
        {changed}
      />
    </dd>
    <dt>Access</dt>
    <dd><Access {edition} {changed} /></dd>
    {#if questions.length}
      <dt>Questions</dt>
      <dd>
        {#each questions as [type, n], i (type)}{i ? ', ' : ''}{n} {types[type] ?? type}{/each}
      </dd>
    {/if}
    {#if standards.length}
      <dt>Curriculum</dt>
      <dd>
        <Findings
          lines={standards.map(([s, n]) => [s, many(n, 'item')])}
          none=""
          say={(n) => many(n, 'statement')}
        />
      </dd>
    {/if}
    <dt>Tool hosts</dt>
    <dd>
      {#each hosts as [host, n] (host)}<span class="fig">{host}</span> ({many(n, 'link')})
      {:else}None.{/each}
    </dd>
    <dt>Frames</dt>
    <dd><FrameHosts hosts={report.frameHosts ?? {}} /></dd>
    <dt>Only for instructors</dt>
    <dd>
      <Findings
        lines={(report.instructorsOnly ?? []).map((t) => ['', t])}
        none="Nothing."
        say={(n) => many(n, 'item') + ', kept hidden from students'}
      />
    </dd>
    <dt>Not in the outline</dt>
    <dd>{report.unplaced ? many(report.unplaced, 'item') + ', put at the end' : 'Nothing.'}</dd>
    {#if report.adjusted?.length}
      <dt>Taken otherwise</dt>
      <dd>
        <Findings
          mind
          lines={report.adjusted.map((f) => [f.where ?? '', f.what ?? ''])}
          none=""
          say={(n) => many(n, 'thing')}
        />
      </dd>
    {/if}
    <dt>Leads nowhere</dt>
    <dd>
      <Findings
        mind
        lines={(report.deadReferences ?? []).map((f) => [f.where ?? '', f.what ?? ''])}
        none="No dead reference."
        say={(n) => many(n, 'reference')}
      />
    </dd>
    <dt>Not understood</dt>
    <dd>
      <Findings
        mind
        lines={(report.notUnderstood ?? []).map((f) => [f.where ?? '', f.what ?? ''])}
        none="Everything was understood."
        say={(n) => many(n, 'thing')}
      />
    </dd>
    {#if others.length}
      <dt>Of no open standard</dt>
      <dd>
        <Findings
          mind
          lines={others.map(([what, n]) => [figure(n), what])}
          none=""
          say={(n) => many(n, 'sort')}
        />
      </dd>
    {/if}
    <dt>Used by no item</dt>
    <dd>
      <Findings
        lines={(report.unusedFiles ?? []).map((f) => [f, ''])}
        none="No file."
        say={() => many(report.unused ?? 0, 'file') + ', kept with the package'}
      />
    </dd>
    <dt>Files</dt>
    <dd>
      <details ontoggle={(e) => e.currentTarget.open && !files.length && void next()}>
        <summary>All files of the package</summary>
        <Trouble of={trouble} />
        <ul>
          {#each files as f (f.path)}
            <li>
              <a href={f.address} download class="fig">{f.path}</a>
              <span class="quiet">{size(f.size)}</span>
            </li>
          {/each}
        </ul>
        {#if more && files.length}
          <button type="button" class="link" onclick={() => void next()}>Show 500 more</button>
        {/if}
      </details>
    </dd>
  </dl>
  <p class="quiet">Choose an item on the left to see it as students would.</p>
</div>

<style>
  .report {
    padding: 22px 36px;
    max-width: 820px;
    display: grid;
    gap: 12px;
  }
  dl {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr);
    row-gap: 8px;
  }
  dt {
    color: var(--ink-2);
  }
  dd {
    overflow-wrap: anywhere;
  }
  summary {
    cursor: pointer;
  }
</style>
