<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../lib/Act.svelte';
  import HandFrame from '../lib/HandFrame.svelte';
  import Rows from '../lib/Rows.svelte';
  import Standing from '../lib/Standing.svelte';
  import Trouble from '../lib/Trouble.svelte';
  import When from '../lib/When.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { place } from '../lib/place.svelte';
  import { figure, many } from '../lib/words';
  import { inWords, left } from './plan';

  let {
    detail,
    trouble,
    stop,
    goOn,
  }: { detail: Schemas['DeliveryDetail']; trouble: unknown; stop: () => void; goOn: () => void } =
    $props();
  type Line = Schemas['DeliveryLine'];
  keyList.of = [];

  const order = [
    'NEEDS_PERSON',
    'RUNNING',
    'TRYING_AGAIN',
    'WAITING',
    'STOPPED',
    'PLANNED',
    'DONE',
  ];
  let d = $derived(detail.delivery);
  let need = $derived(detail.lines.filter((l) => l.state === 'NEEDS_PERSON'));
  let others = $derived(
    detail.lines
      .filter((l) => l.state !== 'NEEDS_PERSON')
      .sort((a, b) => order.indexOf(a.state) - order.indexOf(b.state)),
  );
  const of = (lines: Line[], ...states: string[]) =>
    lines.filter((l) => states.includes(l.state)).length;
  let all = $derived(detail.lines.length);
  let done = $derived(of(detail.lines, 'DONE'));
  let moving = $derived(of(detail.lines, 'RUNNING'));
  let again = $derived(of(detail.lines, 'TRYING_AGAIN'));
  let waiting = $derived(of(detail.lines, 'WAITING'));
  let stopped = $derived(of(detail.lines, 'STOPPED'));
  let seconds = $derived(d.confirmedAt ? left(d.confirmedAt, done + need.length, all) : null);
  let nothing = $derived(detail.lines.filter((l) => l.activity.startsWith('nothing to do')).length);
  let running = $derived(d.state === 'RUNNING');
  let heading = $derived(
    running
      ? `Delivering ${d.masterCode}, version ${d.number}: ${done} of ${many(all, 'section')} done`
      : d.state === 'STOPPED'
        ? `Stopped: ${d.masterCode}, version ${d.number}, ${done} of ${many(all, 'section')} done`
        : need.length
          ? `${d.masterCode}, version ${d.number}: ${done} of ${many(all, 'section')} done, ${need.length} ${need.length === 1 ? 'needs' : 'need'} you`
          : `Delivered: ${d.masterCode}, version ${d.number}, to ${many(all, 'section')}`,
  );

  /** A section with nothing to do counts as one step. */
  const steps = (l: Line) => Math.max(1, l.steps);
  const written = (l: Line) => (l.state === 'DONE' ? steps(l) : Math.min(l.stepsDone, steps(l)));
  const sum = (n: (l: Line) => number, ...of: string[]) =>
    detail.lines.filter((l) => !of.length || of.includes(l.state)).reduce((m, l) => m + n(l), 0);
  let allSteps = $derived(sum(steps));
  let allWritten = $derived(sum(written));
  /** What is drawn full is written; what waits for a person stands at the end. */
  let parts = $derived([
    ['var(--calm)', sum(written, 'DONE')],
    ['var(--do)', allWritten - sum(written, 'DONE', 'TRYING_AGAIN', 'NEEDS_PERSON')],
    ['var(--mind-mark)', sum(written, 'TRYING_AGAIN')],
    ['var(--harm)', sum(written, 'NEEDS_PERSON')],
  ] as const);
  let held = $derived(sum((l) => steps(l) - written(l), 'NEEDS_PERSON'));

  /** What holds several sections up at once, said once. */
  let holdUps = $derived.by(() => {
    const by = new Map<string, { lines: number; reason: string; remedy: string }>();
    for (const l of detail.lines) {
      if (l.state !== 'TRYING_AGAIN' && l.state !== 'NEEDS_PERSON') continue;
      const one = by.get(l.reason ?? '') ?? {
        lines: 0,
        reason: l.reason ?? '',
        remedy: l.remedy ?? '',
      };
      one.lines++;
      by.set(one.reason, one);
    }
    return [...by.values()].filter((h) => h.lines > 2).sort((a, b) => b.lines - a.lines);
  });

  function share(l: Line): number {
    return l.state === 'DONE' ? 1 : l.steps ? l.stepsDone / l.steps : 0;
  }
  function count(l: Line): string {
    if (l.state === 'NEEDS_PERSON') return 'needs you';
    if (l.state === 'WAITING') return 'waits';
    if (l.state === 'STOPPED') return 'stopped';
    if (l.state === 'DONE' && !l.steps) return 'done';
    return `${l.stepsDone} of ${l.steps}`;
  }
  function says(l: Line): string {
    if (l.state === 'TRYING_AGAIN') {
      const s = Math.max(1, Math.round((Date.parse(l.nextTry ?? '') - Date.now()) / 1000));
      const said = holdUps.some((h) => h.reason === l.reason);
      return `trying again in ${s} s${said ? '' : ': ' + (l.reason ?? '')}`;
    }
    return l.activity;
  }
</script>

{#snippet lane(l: Line)}
  <div class="l" class:need={l.state === 'NEEDS_PERSON'}>
    <span class="who">
      <Standing size={16} share={share(l)} failed={l.state === 'NEEDS_PERSON'} />
      <a class="fig link plain" href="/sections/{l.section}">{l.code}</a>
    </span>
    <span class="quiet cut">{l.campus} · {l.instructors}</span>
    <span
      class="track {l.state}"
      role="progressbar"
      aria-label="{l.code}: {count(l)}"
      aria-valuemin="0"
      aria-valuemax="100"
      aria-valuenow={Math.round(share(l) * 100)}><i style="width:{share(l) * 100}%"></i></span
    >
    <span class="fig quiet">{count(l)}</span>
    {#if l.state === 'NEEDS_PERSON'}
      <span>
        {l.reason}
        {l.stepsDone
          ? `${l.stepsDone} of ${l.steps} steps are written and kept.`
          : 'Nothing was written.'}
        {l.remedy}
      </span>
    {:else}
      <span class="quiet cut" title={says(l)}>{says(l)}</span>
    {/if}
  </div>
{/snippet}

<main class="page">
  <div class="head">
    <h1>{heading}</h1>
    <span class="quiet cut">
      {#if running}
        {figure(allWritten)} of {many(allSteps, 'step')} written · {seconds
          ? inWords(seconds) + ' · '
          : ''}goes on if you leave this page
      {:else if d.finishedAt}
        finished <When at={d.finishedAt} />{nothing
          ? ` · nothing was to do in ${many(nothing, 'section')}`
          : ''}
      {/if}
    </span>
    <span class="can">
      {#if running && moving + again + waiting}
        <Act onclick={stop}>{moving ? `Stop after these ${moving}` : 'Stop'}</Act>
      {/if}
    </span>
  </div>
  <div
    class="bar"
    role="img"
    aria-label="{figure(allWritten)} of {many(
      allSteps,
      'step',
    )} written; {done} done, {moving} moving, {again} trying again, {need.length} need you, {waiting} waiting"
  >
    {#each parts as [colour, n] (colour)}
      <i style="width:{(100 * n) / allSteps}%;background:{colour}"></i>
    {/each}
    <i class="held" style="width:{(100 * held) / allSteps}%"></i>
  </div>
  <Trouble of={trouble} />
  {#each holdUps as h (h.reason)}
    <p class="hold-up" role="status">
      <b>{many(h.lines, 'section')}:</b>
      {h.reason} <span class="quiet">{h.remedy}</span>
    </p>
  {/each}
  <div class="lanes">
    {#if need.length}
      <div class="top">
        {#each need as l (l.id)}{@render lane(l)}{/each}
      </div>
    {/if}
    <Rows
      rows={others}
      height={30}
      key={(l: Line) => l.id}
      row={rowOf}
      role="group"
      label="Sections"
    />
  </div>
</main>
{#snippet rowOf(l: Line)}{@render lane(l)}{/snippet}

<HandFrame
  title="{many(all, 'section')} in this delivery"
  words={[
    `${done} done`,
    moving && `${moving} moving`,
    again && `${again} trying again`,
    waiting && `${waiting} waiting`,
    stopped && `${stopped} stopped`,
    need.length && `${need.length} ${need.length === 1 ? 'needs' : 'need'} you`,
  ]
    .filter(Boolean)
    .join(' · ')}
>
  <Act onclick={() => place.set({ look: 'plan' })}>See the plan</Act>
  {#if !running && stopped + need.length}
    <Act main onclick={goOn}>
      {stopped
        ? `Go on with ${many(stopped + need.length, 'section')}`
        : `Retry the ${need.length}`}
    </Act>
  {:else if running && need.length}
    <Act main onclick={goOn}>Retry the {need.length}</Act>
  {/if}
</HandFrame>

<style>
  .page {
    display: flex;
    flex-direction: column;
    padding: 12px 16px 0;
  }
  .head {
    display: flex;
    align-items: center;
    gap: 14px;
    min-height: 32px;
  }
  h1 {
    white-space: nowrap;
  }
  .can {
    margin-left: auto;
  }
  .bar {
    height: 10px;
    background: var(--line-soft);
    border-radius: 2px;
    overflow: hidden;
    display: flex;
    margin: 8px 0 12px;
    flex: none;
  }
  .bar .held {
    margin-left: auto;
    background: repeating-linear-gradient(135deg, var(--harm) 0 2px, transparent 2px 5px);
  }
  .bar i {
    height: 100%;
    transition: width 0.6s;
  }
  .hold-up {
    padding: 6px 12px;
    margin-bottom: 8px;
    border-left: 3px solid var(--mind-mark);
    background: var(--mind-soft);
  }
  .lanes {
    border-top: 1px solid var(--line);
    display: flex;
    flex-direction: column;
    min-height: 0;
    flex: 1;
  }
  .top {
    overflow: auto;
    max-height: 46%;
    flex: none;
    margin: 0 -16px;
  }
  .l {
    display: grid;
    grid-template-columns: 84px 190px 1fr 96px 330px;
    gap: 12px;
    align-items: center;
    height: 30px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .l.need {
    height: auto;
    padding: 8px 16px;
    background: var(--harm-soft);
    line-height: 17px;
  }
  .who {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .plain {
    text-decoration: none;
  }
  .track {
    height: 8px;
    background: var(--line-soft);
    border-radius: 1px;
    display: block;
  }
  .track i {
    display: block;
    height: 100%;
    background: var(--calm);
    transition: width 0.6s;
  }
  .track.RUNNING i,
  .track.TRYING_AGAIN i {
    background: var(--do);
  }
  .track.NEEDS_PERSON i {
    background: var(--harm);
  }
</style>
