<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';

  /** Dates of a master: what days off do to them, and patterns made of real ones. */
  let {
    master,
    real,
    done,
  }: { master: Schemas['MasterOfRibbon']; real: number; done: () => void } = $props();

  type Rule = Schemas['DaysOffRule']['rule'];
  const rules: Record<Rule, string> = {
    NEXT_TEACHING_DAY: 'the next teaching day',
    TEACHING_DAY_BEFORE: 'the teaching day before',
    SAME_WEEKDAY_EARLIER: 'the same weekday a week earlier',
    SAME_WEEKDAY_LATER: 'the same weekday a week later',
    LEAVE: 'left where it is, and told',
  };
  const bys = {
    WEEK: 'week and weekday',
    TEACHING_DAY: 'teaching day',
    MEETING: 'meeting',
  } as const;
  let off = $state.raw<Schemas['DaysOffRule']>();
  let trouble = $state.raw<unknown>();
  let term = $state(session.term?.id ?? '');
  let by = $state<keyof typeof bys>('WEEK');
  let made = $state.raw<Schemas['PatternMade'][]>();
  let id = $derived({ path: { id: master.id } });

  $effect(() => {
    got(api.GET('/api/masters/{id}/dates/off', { params: id })).then(
      (r) => (off = r),
      (e: unknown) => (trouble = e),
    );
  });

  async function put(rule: Rule) {
    try {
      const body = { rule, byKind: off?.byKind ?? {} };
      await got(api.PUT('/api/masters/{id}/dates/off', { params: id, body }));
      done();
    } catch (e) {
      trouble = e;
    }
  }

  async function patterns(really: boolean) {
    try {
      made = await got(
        api.POST('/api/masters/{id}/dates/patterns', {
          params: id,
          body: { calendar: term, by, really },
        }),
      );
      trouble = undefined;
      if (really) done();
    } catch (e) {
      trouble = e;
    }
  }
  let can = $derived(made?.filter((m) => m.pattern) ?? []);
</script>

<h2>Dates of {master.code}</h2>
{#if off}
  <label
    >A date on a day off becomes <select
      class="entry"
      value={off.rule}
      onchange={(e) => put(e.currentTarget.value as Rule)}
    >
      {#each Object.entries(rules) as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select></label
  >
{/if}
{#if real}
  <p class="quiet">
    {many(real, 'item has a real date', 'items have real dates')}, the same in every term. As
    patterns they follow each section's calendar.
  </p>
  <label
    >They are of <select class="entry" bind:value={term}>
      {#each session.terms as t (t.id)}<option value={t.id}>{t.title}</option>{/each}
    </select></label
  >
  <label
    >and are said by <select class="entry" bind:value={by}>
      {#each Object.entries(bys) as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select></label
  >
  {#if made}
    <table>
      <thead><tr><th>Item</th><th>Now</th><th>Pattern</th></tr></thead>
      <tbody>
        {#each made.slice(0, 40) as m (m.item + m.point)}
          <tr
            ><td>{m.title}{m.point === 'DUE' ? '' : `, ${m.point.toLowerCase()}`}</td><td
              class="fig">{m.real.slice(0, 10)}</td
            ><td class="fig">{m.pattern ?? 'stays real'}</td></tr
          >
        {/each}
      </tbody>
    </table>
    {#if made.length > 40}<p class="quiet">{made.length - 40} more</p>{/if}
    <Act main disabled={!can.length} onclick={() => patterns(true)}
      >Make {many(can.length, 'pattern')} in the draft</Act
    >
  {:else}
    <Act onclick={() => patterns(false)}>See what they become</Act>
  {/if}
{:else}
  <p class="quiet">All its dates are patterns, or it has none.</p>
{/if}
<p class="back"><Act onclick={done}>Leave</Act></p>
<Trouble of={trouble} />

<style>
  label {
    display: grid;
    gap: 2px;
    margin: 8px 0;
    font-size: 13px;
    color: var(--ink-2);
  }
  table {
    width: 100%;
    font-size: 13px;
    border-collapse: collapse;
    margin: 8px 0;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  td,
  th {
    border-bottom: 1px solid var(--line);
    padding: 3px 6px 3px 0;
    vertical-align: top;
  }
  td.fig {
    white-space: nowrap;
  }
  .back {
    margin-top: 12px;
  }
  label .entry {
    max-width: none;
  }
</style>
