<script lang="ts">
  import { diffWords } from 'diff';
  import { api, got, type AspectStep, type Schemas, type StepKind } from '../api/client';
  import StepMark from '../marks/StepMark.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { place } from '../frame/place.svelte';
  import { everyAspect, reasons, stepWords } from '../marks/words';
  import Decide from './Decide.svelte';
  import { words } from './plan';

  /** One step with its three sides: the version, the section, what was delivered before. */
  let { detail, changed }: { detail: Schemas['DeliveryDetail']; changed?: () => void } = $props();
  let sides = $state.raw<Schemas['StepSides'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let line = $derived(detail.lines.find((l) => l.id === place.get('line')));
  let key = $derived(place.get('item'));

  $effect(() => {
    if (!line || !key) {
      sides = null;
      return;
    }
    const path = { id: detail.delivery.id, line: line.id, key };
    void got(api.GET('/api/deliveries/{id}/lines/{line}/steps/{key}', { params: { path } })).then(
      (s) => ((sides = s), (trouble = null)),
      (e) => ((sides = null), (trouble = e)),
    );
  });

  const did: Record<AspectStep, [string, string]> = {
    SAME: ['same', ''],
    UPDATE: ['updated', 'do'],
    KEEP: ['the section’s stays', 'own'],
    CLASH_KEPT: ['both moved; the section’s stays', 'mind'],
    CLASH_OVERWRITTEN: ['both moved; the version’s is written', 'mind'],
    CLASH_TOGETHER: ['both moved; both are taken', 'mind'],
    MERGED: ['both moved, at different places; both stay', 'own'],
    BLOCKED: ['blocked by student work', 'harm'],
    LEFT: ['other dates; left as they are', ''],
  };

  function text(i: Schemas['ItemView'] | undefined): string {
    if (!i) return '';
    const parts = [i.title, words(i.html)];
    if (i.points) parts.push(`${i.points} points`);
    if (i.due) parts.push(`due ${i.due.replace('T', ' ')}`);
    if (i.address) parts.push(i.address);
    if (i.file) parts.push(i.file.name ?? '');
    if (!i.shown) parts.push('hidden');
    return parts.filter(Boolean).join('\n');
  }
  let back = $derived(Boolean(detail.delivery.takesBack));
  const ordinary: Record<StepKind, string> = {
    UPDATE: 'the version moved',
    ADD: 'new here',
    KEEP: 'changed in the section, and stays',
    CLASH: 'both changed it',
    TWIN: 'the section holds something alike',
    RETIRE: 'goes from the section',
    BLOCKED: 'nothing before a person decides',
    SAME: 'nothing to do',
  };
  let said = $derived<Record<StepKind, string>>(
    back
      ? {
          ...ordinary,
          UPDATE: 'becomes as it was',
          ADD: 'comes again',
          KEEP: 'changed since, and stays',
          CLASH: 'changed since as well',
          RETIRE: 'came with that delivery, and goes',
        }
      : ordinary,
  );
  let before = $derived(text(sides?.before));
  let version = $derived(text(sides?.version));
  let here = $derived(text(sides?.here));
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  const added = (from: string, to: string) => diffWords(from, to).filter((p) => !p.removed);
  const totals = Object.entries(stepWords) as [StepKind, [string, string]][];

  onEscape(() => {
    if (!place.get('item')) return false;
    place.set({ item: '', line: '' });
    return true;
  });
</script>

{#if sides && line}
  <div>
    <div class="faint fig">{line.code} · {line.campus} · {line.instructors}</div>
    <h2>{(sides.version ?? sides.here ?? sides.before)?.title}</h2>
    <p class="why">
      <StepMark kind={sides.kind} size={13} />
      {reasons[sides.reason]}
      <a class="link" href="/coverage/items/{detail.delivery.master}/{key}">In all sections</a>
    </p>
    {#if sides.evidence}
      <p class="quiet">
        Its text is {percent(sides.evidence.text)} alike, its title {percent(sides.evidence.title)},
        what stands around it {percent(sides.evidence.neighbours)}.
      </p>
    {/if}
  </div>
  {#if Object.keys(sides.aspects).length}
    <dl>
      {#each everyAspect as a (a)}
        {@const [say, tone] = did[sides.aspects[a] ?? 'SAME']}
        <dt>{a.toLowerCase()}</dt>
        <dd class={tone}>{say}</dd>
      {/each}
    </dl>
  {/if}
  {#if sides.decide && changed && !detail.delivery.confirmedAt}
    <Decide
      delivery={detail.delivery.id}
      line={line.id}
      item={key}
      number={detail.delivery.number}
      {sides}
      {changed}
    />
  {/if}
  {#if sides.version}
    <section class="txt">
      <h3>{back ? 'Before that delivery' : `Version ${detail.delivery.number}`}</h3>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <p tabindex="0">
        {#each added(before || here || version, version) as p, i (i)}{#if p.added}<ins
              >{p.value}</ins
            >{:else}{p.value}{/if}{/each}
      </p>
    </section>
  {/if}
  {#if sides.here}
    <section class="txt own">
      <h3>In the section</h3>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <p tabindex="0">
        {#each added(before || version || here, here) as p, i (i)}{#if p.added}<ins>{p.value}</ins
            >{:else}{p.value}{/if}{/each}
      </p>
    </section>
  {:else if sides.kind === 'ADD'}
    <p class="quiet">The section does not hold it.</p>
  {/if}
  {#if sides.before}
    <section class="txt old">
      <h3>{back ? 'As that delivery left it' : 'Delivered before'}</h3>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <p tabindex="0">{before}</p>
    </section>
  {/if}
  <p class="faint next"><kbd>n</kbd> next clash, twin or blocked step</p>
{:else}
  <Trouble of={trouble} />
  <h2>Every step before anything moves</h2>
  <p class="quiet">
    Choose a mark to see {back
      ? 'how it was, how it is and how that delivery left it'
      : 'the version, the section and what was delivered before'}, side by side.
  </p>
  <div class="legend" role="group" aria-label="Legend">
    {#each totals as [k, w] (k)}
      <StepMark kind={k} size={13} />
      <span>
        <b>{w[0]}</b>
        {said[k]}
      </span>
    {/each}
  </div>
{/if}

<style>
  .why {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  .why :global(svg) {
    flex: none;
    align-self: center;
  }
  dl {
    display: grid;
    grid-template-columns: 84px 1fr;
    font-size: 13px;
    row-gap: 2px;
    padding: 8px 0;
  }
  dt {
    color: var(--ink-3);
    text-transform: capitalize;
  }
  .do {
    color: var(--do);
  }
  dd.own {
    color: var(--own);
  }
  .mind {
    color: var(--mind);
  }
  .harm {
    color: var(--harm);
  }
  .txt {
    background: var(--raise);
    border: 1px solid var(--line);
    border-radius: var(--r);
    padding: 8px 10px;
    font-size: 13px;
    line-height: 19px;
    margin-bottom: 8px;
  }
  .txt p {
    white-space: pre-line;
    max-height: 132px;
    overflow: auto;
  }
  .txt.old {
    border-style: dashed;
    color: var(--ink-2);
  }
  h3 {
    font-size: 12px;
    line-height: 16px;
    font-weight: 600;
    color: var(--ink-2);
    margin-bottom: 4px;
  }
  ins {
    background: var(--do-soft);
    text-decoration: none;
    border-bottom: 1.5px solid var(--do);
  }
  .own ins {
    background: var(--own-soft);
    border-color: var(--own);
  }
  .legend {
    display: grid;
    grid-template-columns: 24px 1fr;
    row-gap: 5px;
    padding-top: 14px;
    color: var(--ink-2);
    align-items: center;
  }
  .next {
    padding-top: 4px;
  }
</style>
