<script lang="ts">
  import Called from './Called.svelte';
  import Arrival from '../tool/Arrival.svelte';
  import { api, got, type Schemas, type StepKind } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { ago, figure, many, stepKind, stepWords } from '../marks/words';
  import PlanGrid from './PlanGrid.svelte';
  import SidesPane from './SidesPane.svelte';
  import PlanAsks from './PlanAsks.svelte';
  import Together from './Together.svelte';
  import PlanHand from './PlanHand.svelte';
  import { leavesOut } from './partSets.svelte';
  import { manner, ofDelivery, type Order } from './order';
  import { words } from './orderWords';
  import { totals } from './plan';

  let {
    detail,
    trouble,
    confirm,
    choose,
    changed,
  }: {
    detail: Schemas['DeliveryDetail'];
    trouble: unknown;
    confirm: (begin: Schemas['Begin']) => void;
    choose: (c: Schemas['Chosen']) => void;
    /** Something was decided, so some sections are planned anew. */
    changed: () => void;
  } = $props();

  keyList.of = [
    ['arrows', 'From step to step'],
    ['Page up, Page down, Home, End', 'A page on, to the ends'],
    ['Enter', 'Open the three sides of a step'],
    ['n', 'Next clash, twin or blocked step'],
  ];
  let plan = $state.raw<Schemas['DeliveryPlan'] | null>(null);
  let planFor = '';
  let unread = $state.raw<unknown>(null);
  let d = $derived(detail.delivery);
  let planned = $derived(d.state !== 'PLANNING');
  let ready = $derived(
    detail.lines.filter((l) => !['TO_PLAN', 'TRYING_AGAIN', 'ACCEPTED'].includes(l.state)).length,
  );
  let stamp = $derived(d.id + detail.lines.map((l) => l.readAt).join());

  $effect(() => {
    if (!planned || planFor === stamp) return;
    planFor = stamp;
    void got(api.GET('/api/deliveries/{id}/plan', { params: { path: { id: d.id } } })).then(
      (p) => ((plan = p), (unread = null)),
      (e) => ((unread = e), (planFor = '')),
    );
  });

  let counts = $derived(totals(detail.lines));
  const told: readonly StepKind[] = [
    'UPDATE',
    'ADD',
    'KEEP',
    'CLASH',
    'TWIN',
    'RETIRE',
    'BLOCKED',
    'SAME',
  ];
  let only = $derived(stepKind(place.get('only')));
  let readAt = $derived(
    detail.lines
      .map((l) => l.readAt)
      .filter(Boolean)
      .sort()[0],
  );
  let order = $derived(ofDelivery(detail));
  let how = $derived(
    [
      order.atOnce === '0' ? '' : words.atOnce[order.atOnce],
      order.what === 'EVERYTHING'
        ? ''
        : order.what === 'CHANGED'
          ? 'only what changed'
          : 'only chosen parts',
      leavesOut(order) ? 'some left out' : '',
      order.attachments === 'ALONG' ? '' : words.attachments.OUT,
      order.arrival === 'AS_IN_MASTER' ? '' : 'new items ' + words.arrival[order.arrival],
      order.dates === 'ALONG' ? '' : words.dates[order.dates],
      order.onto === 'UP_TO_DATE' ? '' : words.onto[order.onto],
      order.emptied === 'ASK' ? '' : `an emptied shell ${words.emptied[order.emptied]}`,
      `in a clash ${words.clash[order.clash]}`,
      `a twin ${words.twin[order.twin]}`,
      Object.keys({ ...order.clashOf, ...order.twinOf }).length ? 'otherwise for some kinds' : '',
    ].filter(Boolean),
  );

  /** With everything else as it was chosen. */
  function change(to: Partial<Order>) {
    choose(manner({ ...order, ...to }));
  }
  let live = $derived(
    plan?.rows.filter((r) => r.kind === 'WEB_LINK' || r.kind === 'TOOL_LINK').length ?? 0,
  );
</script>

<div class="page">
  <main class="left">
    <div class="head">
      <h1>
        {#if d.edit}{d.takesBack ? 'Take back: ' : ''}{d.edit}, in {many(
            detail.lines.length,
            'section',
          )}
        {:else}{d.takesBack ? 'Take back ' : ''}{d.masterCode}, version {d.number}, {d.takesBack
            ? 'in'
            : 'to'}
          {many(detail.lines.length, 'section')}{/if}
      </h1>
      <span class="quiet cut">
        {#if d.takesBack}all of it as it was before <a class="link" href="/deliveries/{d.takesBack}"
            >that delivery</a
          >{order.clash === 'KEEP_SECTION'
            ? '; what was changed since stays'
            : '; what was changed since is undone too'}
        {:else if d.edit}the same change everywhere; what the ledger says of the items stays
        {:else}{how.join(' · ')}{/if}
      </span>
    </div>
    {#if !d.takesBack && !d.edit}<Arrival delivery={d.id} />{/if}
    <Called delivery={d} {changed} />
    <Together {detail} />
    {#if !planned && !plan}
      <p class="quiet" role="status">
        Reading shells and planning: {ready} of {detail.lines.length} sections. Nothing moves yet.
      </p>
      <progress max={detail.lines.length} value={ready} aria-label="Planning"></progress>
    {:else}
      <div class="tot" role="group" aria-label="Steps by kind">
        {#each told.filter((k) => counts[k]) as k (k)}
          <button
            class="tab"
            aria-pressed={only === k}
            disabled={k === 'SAME'}
            onclick={() => place.set({ only: only === k ? '' : k })}
          >
            <StepMark kind={k} size={13} /><b class="fig">{figure(counts[k] ?? 0)}</b>{stepWords[k][
              counts[k] === 1 ? 0 : 1
            ]}
          </button>
        {/each}
        {#if plan}
          <span class="out">
            <a class="link" href="/deliveries/print/{d.id}">On paper</a>
            <a class="link" href="/api/deliveries/{d.id}/plan/file?format=CSV" download>CSV</a>
            <a class="link" href="/api/deliveries/{d.id}/plan/file?format=XLSX" download>XLSX</a>
          </span>
        {/if}
        {#if plan && live}
          <span
            class="quiet"
            title="A live item follows its origin by itself; a copied one needs a delivery"
            >{many(plan.rows.length - live, 'item')} copied, {figure(live)} live</span
          >
        {/if}
      </div>
    {/if}
    <Trouble of={trouble ?? unread} />
    <PlanAsks {detail} {plan} {order} {planned} {change} />
    {#if planned && !plan && !unread}
      <p class="quiet" role="status">
        Drawing the plan of {many(detail.lines.length, 'section')} …
      </p>
    {/if}
    {#if plan && !planned}
      <p class="quiet" role="status">
        Planning anew: {ready} of {detail.lines.length} sections.
      </p>
    {/if}
    {#if plan}
      {#if plan.codes.length}
        <PlanGrid {plan} lines={detail.lines} {only} />
      {:else}
        <div class="nothing">
          <h2>Nothing to do</h2>
          <p class="quiet">
            {#if d.edit}In none of the sections is there anything to change.
            {:else}All {many(detail.lines.length, 'section')} hold version {d.number} already. Delivering
              it records that they were looked at, and changes nothing.{/if}
          </p>
        </div>
      {/if}
    {/if}
  </main>
  <aside class="aside">
    <SidesPane {detail} {changed} />
  </aside>
</div>
<HandFrame
  title={d.confirmedAt ? 'This delivery has run' : 'Nothing has moved yet'}
  words={[
    counts.CLASH
      ? many(counts.CLASH, 'clash', 'clashes') +
        (d.clash === 'KEEP_SECTION' ? ' kept as the section has it' : ' overwritten')
      : '',
    counts.BLOCKED ? many(counts.BLOCKED, 'step') + ' blocked' : '',
    readAt ? 'read from the shells ' + ago(readAt) : '',
  ]
    .filter(Boolean)
    .join(' · ')}
>
  {#if d.confirmedAt}
    <Act main onclick={() => place.set({ look: '' })}>See the run</Act>
  {:else}
    <PlanHand {detail} {order} {planned} {change} {confirm} />
  {/if}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside-wide);
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    padding: 12px 0 0 16px;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 14px;
    padding-right: 16px;
    min-width: 0;
  }
  h1 {
    white-space: nowrap;
  }
  .tot {
    display: flex;
    gap: 4px 16px;
    margin: 6px 0 10px;
    flex-wrap: wrap;
  }
  .tot .tab {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .out {
    display: flex;
    gap: 10px;
    order: 1;
    margin-left: auto;
    padding-right: 16px;
  }
  .tot b {
    color: var(--ink);
  }
  progress {
    width: calc(100% - 16px);
    height: 8px;
    accent-color: var(--do);
  }
  .nothing {
    padding: 24px 0;
    max-width: 60ch;
  }
</style>
