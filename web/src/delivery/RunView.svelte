<script lang="ts">
  import Called from './Called.svelte';
  import type { LineState, Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Rows from '../lists/Rows.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { figure, many } from '../marks/words';
  import Together from './Together.svelte';
  import PackagesWait from '../packages/PackagesWait.svelte';
  import RunLane from './RunLane.svelte';
  import SameToAll from './SameToAll.svelte';
  import { head, inWords, left } from './plan';
  import { lost, proof } from './untouched';
  import { waits } from './waits';

  let {
    detail,
    trouble,
    stop,
    goOn,
    takeBack,
    changed,
  }: {
    detail: Schemas['DeliveryDetail'];
    trouble: unknown;
    stop: () => void;
    goOn: () => void;
    /** In all sections, or in these. */
    takeBack: (sections?: string[]) => void;
    changed: () => void;
  } = $props();
  type Line = Schemas['DeliveryLine'];
  keyList.of = [];

  const order: readonly LineState[] = [
    'NEEDS_PERSON',
    'RUNNING',
    'TRYING_AGAIN',
    'ACCEPTED',
    'WAITING',
    'NOT_YET',
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
  const of = (lines: Line[], ...states: LineState[]) =>
    lines.filter((l) => states.includes(l.state)).length;
  let all = $derived(detail.lines.length);
  let done = $derived(of(detail.lines, 'DONE'));
  let moving = $derived(of(detail.lines, 'RUNNING'));
  let again = $derived(of(detail.lines, 'TRYING_AGAIN', 'ACCEPTED'));
  let waiting = $derived(of(detail.lines, 'WAITING'));
  let stopped = $derived(of(detail.lines, 'STOPPED'));
  let seconds = $derived(d.confirmedAt ? left(d.confirmedAt, done + need.length, all) : null);
  let nothing = $derived(detail.lines.filter((l) => l.state === 'DONE' && !l.steps).length);
  let running = $derived(d.state === 'RUNNING');
  let packaged = $derived(
    detail.lines.filter((l) => l.state === 'NOT_YET' && l.waitsFor === 'PACKAGE'),
  );
  let notYet = $derived(of(detail.lines, 'NOT_YET'));
  let inHand = $derived(detail.lines.filter((l) => hand.has(l.section)).map((l) => l.section));
  let heading = $derived(head(d, { all, done, need: need.length, notYet }));

  /** A section with nothing to do counts as one step. */
  const steps = (l: Line) => Math.max(1, l.steps);
  const written = (l: Line) =>
    l.state === 'DONE' ? steps(l) : l.state === 'NOT_YET' ? 0 : Math.min(l.stepsDone, steps(l));
  const sum = (n: (l: Line) => number, ...of: LineState[]) =>
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
      if (!['TRYING_AGAIN', 'ACCEPTED', 'NEEDS_PERSON'].includes(l.state)) continue;
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
  let proven = $derived(proof(detail.lines));
  let less = $derived(lost(detail.lines));
  let said = $derived(new Set(holdUps.map((h) => h.reason)));
</script>

<main class="page">
  <div class="head">
    <h1>{heading}</h1>
    <span class="quiet said">
      {#if running}
        {figure(allWritten)} of {many(allSteps, 'step')} written · {seconds
          ? inWords(seconds) + ' · '
          : ''}goes on if you leave this page
      {:else if d.finishedAt && !packaged.length}
        {#if d.takesBack}takes back <a class="link" href="/deliveries/{d.takesBack}"
            >that delivery</a
          >,{/if}
        finished <When at={d.finishedAt} />{nothing
          ? ` · nothing was to do in ${many(nothing, 'section')}`
          : ''}
        {detail.mail.made
          ? ` · ${many(detail.mail.sent, 'mail')} sent${detail.mail.sent + detail.mail.problems.length < detail.mail.made ? ` of ${detail.mail.made}` : ''}`
          : ''}
        {proven ? ` · students’ own ${proven}` : ''}
        {#each detail.takenBackBy as by (by)}
          · <a class="link" href="/deliveries/{by}">taken back</a>
        {/each}
      {/if}
    </span>
    <span class="can">
      {#if running && moving + again + waiting}
        <Act onclick={stop}>{moving ? `Stop after these ${moving}` : 'Stop'}</Act>
      {:else if notYet}
        <Act onclick={stop}
          >{d.state === 'SCHEDULED' ? 'Do not begin' : `Let the ${notYet} wait no longer`}</Act
        >
      {/if}
    </span>
  </div>
  <Called delivery={d} {changed} />
  <Together {detail} />
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
  {#if !running && !d.takesBack}<SameToAll {detail} />{/if}
  {#if packaged.length}<PackagesWait delivery={d.id} lines={packaged} />{/if}
  {#each waits(detail.lines).filter((w) => w.what !== 'TIME' && w.what !== 'PACKAGE') as w (w.what)}
    <p class="hold-up" role="status">{w.said}. <span class="quiet">{w.then}</span></p>
  {/each}
  {#if less.length}
    <p class="hold-up" role="status">
      <b>{many(less.length, 'section')} ({less.map((l) => l.code).join(', ')}):</b> less of
      students’ work, grades or posts was counted after than before.
      <span class="quiet">Look at the shell; nothing of it was touched by this delivery.</span>
    </p>
  {/if}
  {#if detail.mail.problems.length}
    <p class="hold-up" role="status">
      {many(detail.mail.problems.length, 'mail')} came back: {detail.mail.problems
        .slice(0, 5)
        .join('; ')}. <span class="quiet">Correct the address under People or in the roster.</span>
    </p>
  {/if}
  <div class="lanes">
    {#if need.length}
      <div class="top">
        {#each need as line (line.id)}<RunLane {line} {said} />{/each}
      </div>
    {/if}
    <Rows
      rows={others}
      height={30}
      key={(l: Line) => l.id}
      row={lane}
      role="group"
      label="Sections"
    />
  </div>
</main>
{#snippet lane(line: Line)}<RunLane {line} {said} />{/snippet}

<HandFrame
  title="{many(all, 'section')} in this delivery"
  words={[
    `${done} done`,
    moving && `${moving} moving`,
    again && `${again} trying again`,
    waiting && `${waiting} waiting`,
    notYet && `${notYet} not yet`,
    stopped && `${stopped} stopped`,
    need.length && `${need.length} ${need.length === 1 ? 'needs' : 'need'} you`,
  ]
    .filter(Boolean)
    .join(' · ')}
>
  <Act onclick={() => place.set({ look: 'plan' })}>See the plan</Act>
  {#if !running && done}
    {#if inHand.length && inHand.length < all}
      <Act onclick={() => takeBack(inHand)}>Take back in the {inHand.length} in hand …</Act>
    {/if}
    <Act onclick={() => takeBack()}>Take it back …</Act>
  {/if}
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
  .said {
    flex: 1;
    min-width: 0;
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
</style>
