<script lang="ts">
  import { csrf, problem, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';

  /** A roster is looked at first; what it would do is said before it is taken in. */
  let { load }: { load: () => Promise<void> } = $props();
  let look = $state.raw<Schemas['RosterLook'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let busy = $state('');
  let meant = $state(false);
  let chooser: HTMLInputElement;

  async function send(path: string, type: string, body: BodyInit) {
    const answer = await fetch(path, {
      method: 'POST',
      headers: { 'Content-Type': type, 'X-XSRF-TOKEN': csrf() },
      body,
    });
    const said: unknown = await answer.json();
    if (!answer.ok) throw problem(answer.status, said);
    return said as Schemas['RosterLook'];
  }

  async function see(file: File | undefined) {
    if (!file) return;
    trouble = look = null;
    meant = false;
    busy = `Reading ${file.name} …`;
    try {
      look = await send('/api/roster', 'application/octet-stream', file);
    } catch (e) {
      trouble = e;
    } finally {
      busy = '';
      chooser.value = '';
    }
  }

  async function take() {
    const path = `/api/roster/${look!.id}/take`;
    busy = 'Taking it in …';
    try {
      look = await send(path, 'application/json', JSON.stringify({ despite: meant }));
      trouble = null;
      await load();
    } catch (e) {
      trouble = e;
    } finally {
      busy = '';
    }
  }

  let taken = $derived(look !== null && !look.id);
  let lines = $derived(
    look
      ? (
          [
            [look.added, 'section', 'new'],
            [look.changed, 'section', 'changed'],
            [look.back, 'section', 'back again'],
            [look.ended, 'section', 'no longer in it, kept and marked'],
            [look.same, 'section', 'as before'],
            [look.courses, 'course', 'new or changed'],
            [look.terms, 'term', 'new or changed'],
            [look.programs + look.campuses, 'program or campus', 'new or renamed'],
            [look.people, 'teacher', 'new or renamed'],
            [look.teach, 'teacher', 'given a section'],
            [look.leave, 'teacher', 'no longer teaching one'],
            [look.students, 'student', 'counted'],
            [look.inParts, 'section', 'taught in a part of the term, with a calendar of its own'],
          ] as [number, string, string][]
        ).filter(([n]) => n)
      : [],
  );
</script>

<section>
  <h2>Sections, from a OneRoster bundle</h2>
  <p class="quiet">
    A ZIP with orgs, academicSessions, courses and classes as CSV; users and enrollments tell who
    teaches. You see what it would do before anything is taken in.
  </p>
  <input
    bind:this={chooser}
    type="file"
    accept=".zip"
    class="sr-only"
    tabindex="-1"
    aria-label="OneRoster bundle"
    onchange={(e) => see(e.currentTarget.files?.[0])}
  />
  <p>
    <Act main={!look || taken} disabled={!!busy} onclick={() => chooser.click()}
      >{busy || (look && !taken ? 'Look at another roster' : 'Look at a roster')}</Act
    >
  </p>
  <Trouble of={trouble} />
  {#if look}
    <div class="look" role="status">
      <b>{taken ? 'Taken in:' : 'This roster would bring:'}</b>
      <ul class="does">
        {#each lines as [n, what, does] (what + does)}
          <li>
            <span class="fig"
              >{many(
                n,
                what,
                what === 'program or campus' ? 'programs or campuses' : what + 's',
              )}</span
            >
            {does}
          </li>
        {:else}
          <li>nothing: the college is already so.</li>
        {/each}
      </ul>
      {#if !taken && look.asks.length}
        <div class="asks">
          {#each look.asks as a (a)}<p><b>{a}</b></p>{/each}
          {#if look.endedOnes.length}<p class="quiet fig cut">
              {look.endedOnes.slice(0, 12).join(', ')}{look.ended > 12 ? ' …' : ''}
            </p>{/if}
          <label><input type="checkbox" bind:checked={meant} /> It is meant so.</label>
        </div>
      {/if}
      {#if !taken}
        <p>
          <Act main disabled={!!busy || (look.asks.length > 0 && !meant)} onclick={take}
            >Take this roster in</Act
          >
          <Act disabled={!!busy} onclick={() => (look = null)}>Leave it</Act>
        </p>
      {/if}
      {#if look.remarks.length}
        <p class="quiet">{many(look.remarks.length, 'remark')}:</p>
        <ul class="remarks">
          {#each look.remarks.slice(0, 200) as r, i (i)}
            <li>
              <span class="fig"
                >{r.file}{r.line ? `, line ${r.line}` : ''}{r.sourcedId
                  ? `, ${r.sourcedId}`
                  : ''}</span
              >
              {r.problem}
              <span class="quiet">{r.remedy}</span>
            </li>
          {/each}
        </ul>
      {:else}<p class="quiet">Every row was understood.</p>{/if}
    </div>
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

<style>
  section,
  .look {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
  }
  .does {
    columns: 2;
    max-width: 720px;
  }
  .does li {
    break-inside: avoid;
  }
  .asks {
    border-left: 3px solid var(--mind-mark);
    background: var(--mind-soft);
    padding: 6px 12px;
  }
  .remarks {
    max-height: 260px;
    overflow: auto;
  }
  .remarks li {
    padding: 2px 0 2px 10px;
    border-left: 3px solid var(--mind-mark);
  }
</style>
