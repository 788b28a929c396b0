<script lang="ts">
  import type { Schemas } from '../api/client';
  import { kind } from '../marks/words';

  /** How an item arrives, and where it came from: one line. */
  let {
    item,
    frozen,
    change,
  }: { item: Schemas['ItemView']; frozen: boolean; change: (c: Schemas['ItemChange']) => unknown } =
    $props();
  const rules = {
    FIXED: 'fixed: must equal the master',
    ADAPTABLE: 'adaptable: kept where the section changed it',
    STARTER: 'starter: delivered once, then theirs',
  } as const;
  const lives = {
    COPIED: 'copied: a change needs a delivery',
    LIVE: 'live: follows its origin by itself',
    PARTLY: 'copied, with a part that stays live',
  } as const;
  /** A real time with a blank between day and time; a pattern as it is. */
  const said = (at: string) => at.replace(/(\d)T(\d)/, '$1 $2');
  let to = $derived(item.own?.appliesTo);
  let applies = $derived(
    to?.nobody
      ? 'nobody: it stays here'
      : [...(to?.campuses ?? []), ...(to?.modes ?? []), ...(to?.tags ?? [])].join(', ') ||
          'all sections',
  );
</script>

<div class="facts">
  <span>{kind(item.kind)}{item.points ? `, ${item.points} points` : ''}</span>
  {#if frozen}
    <span>Edit rule <b>{item.rule.toLowerCase()}</b></span>
    <span>Arrives <b>{item.shown ? 'shown' : 'hidden'}</b></span>
  {:else}
    <label
      >Edit rule
      <select
        class="entry"
        value={item.rule}
        title={rules[item.rule]}
        onchange={(e) => change({ rule: e.currentTarget.value as 'FIXED' })}
      >
        {#each Object.entries(rules) as [value, words] (value)}<option {value} title={words}
            >{value.toLowerCase()}</option
          >{/each}
      </select>
    </label>
    <label
      >Arrives
      <select
        class="entry"
        value={String(item.shown)}
        onchange={(e) => change({ shown: e.currentTarget.value === 'true' })}
      >
        <option value="true">shown</option><option value="false">hidden</option>
      </select>
    </label>
  {/if}
  <span class="cut whom" title={applies}
    >For <b>{item.instructorsOnly ? 'instructors only, ' : ''}{applies}</b></span
  >
  {#each [['Opens', item.opens], ['Due', item.due], ['Closes', item.closes]] as [word, at] (word)}
    {#if at}<span>{word} <b class="fig">{said(at)}</b></span>{/if}
  {/each}
  <span title={lives[item.live]}
    ><b>{item.live === 'PARTLY' ? 'partly live' : item.live.toLowerCase()}</b></span
  >
  <span class="cut" title={item.own?.origin}
    >{item.own?.origin ? 'Came from ' : ''}<b>{item.own?.origin || 'Written here'}</b></span
  >
</div>

<style>
  .facts {
    display: flex;
    gap: 18px;
    align-items: center;
    padding: 7px 20px;
    border-top: 1px solid var(--line);
    background: var(--paper);
    font-size: 13px;
    color: var(--ink-2);
    white-space: nowrap;
    overflow: hidden;
  }
  .facts > * {
    flex: none;
  }
  .facts > .cut {
    flex: 0 10 auto;
    min-width: 60px;
  }
  .facts > .whom {
    flex-shrink: 1;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .entry {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    font-size: 13px;
    max-width: 150px;
  }
  b {
    color: var(--ink);
  }
</style>
