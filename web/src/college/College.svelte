<script lang="ts">
  import { api, csrf, got, problem, type Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import HandFrame from '../lib/HandFrame.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { session } from '../lib/session.svelte';
  import { many } from '../lib/words';
  import AddPerson from './AddPerson.svelte';
  import Platforms from './Platforms.svelte';

  let platforms = $state.raw<Schemas['PlatformList'] | null>(null);
  let report = $state.raw<Schemas['Report'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let busy = $state('');
  let chooser: HTMLInputElement;
  keyList.of = [];
  let admin = $derived(session.me?.role === 'ADMINISTRATOR');

  async function load() {
    try {
      platforms = await got(api.GET('/api/platforms'));
      await session.loadTerms();
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function take(file: File | undefined) {
    if (!file) return;
    trouble = report = null;
    busy = file.name;
    try {
      const answer = await fetch('/api/roster', {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream', 'X-XSRF-TOKEN': csrf() },
        body: file,
      });
      const body: unknown = await answer.json();
      if (!answer.ok) throw problem(answer.status, body);
      report = body as Schemas['Report'];
      await load();
    } catch (e) {
      trouble = e;
    } finally {
      busy = '';
    }
  }
</script>

<main class="page folio">
  <h1>The college</h1>
  <Trouble of={trouble} />
  <section>
    <h2>Sections, from a OneRoster bundle</h2>
    <p class="quiet">
      A ZIP with orgs, academicSessions, courses and classes as CSV; users and enrollments tell who
      teaches. Taken in again, nothing doubles; a section that vanished is kept and marked.
    </p>
    <input
      bind:this={chooser}
      type="file"
      accept=".zip"
      class="sr-only"
      tabindex="-1"
      aria-label="OneRoster bundle"
      onchange={(e) => take(e.currentTarget.files?.[0])}
    />
    <p>
      <Act main disabled={!!busy} onclick={() => chooser.click()}
        >{busy ? `Reading ${busy} …` : 'Take in a roster'}</Act
      >
    </p>
    {#if report}
      <p role="status">
        <b>
          {many(report.sections ?? 0, 'section')} of {many(report.courses ?? 0, 'course')}, {many(
            report.terms ?? 0,
            'term',
          )},
          {many(report.instructors ?? 0, 'instructor')}
        </b>{report.vanished
          ? `; ${many(report.vanished, 'section')} no longer in it, kept and marked`
          : ''}.
        {report.remarks?.length
          ? many(report.remarks.length, 'row') + ' left out or remarked:'
          : 'Every row was taken.'}
      </p>
      <ul>
        {#each (report.remarks ?? []).slice(0, 200) as r, i (i)}
          <li>
            <span class="fig">{r.file}{r.line ? `, line ${r.line}` : ''}</span>
            {r.problem}
            {r.remedy}
          </li>
        {/each}
      </ul>
    {/if}
    {#each session.terms as t (t.id)}
      <p>
        <b>{t.title}</b>
        <span class="quiet"
          >{many(t.sections, 'section')}{t.week ? `, week ${t.week} of ${t.weeks}` : ''}</span
        >
      </p>
    {/each}
  </section>
  <section>
    <h2>Platforms that hold the shells</h2>
    {#if platforms}<Platforms {platforms} {admin} {load} />{/if}
  </section>
  {#if admin}
    <section>
      <h2>People</h2>
      <AddPerson />
    </section>
  {/if}
</main>
<HandFrame title="The college" words="Where sections come from, and where their shells are." />

<style>
  main {
    display: grid;
    gap: 18px;
    align-content: start;
    max-width: 860px;
  }
  section {
    display: grid;
    gap: 6px;
  }
  li {
    padding: 2px 0 2px 10px;
    border-left: 3px solid var(--mind-mark);
  }
</style>
