<script lang="ts">
  import type { Schemas } from '../api/client';
  import { kind } from '../marks/words';

  let {
    item,
    frozen,
    change,
  }: { item: Schemas['ItemView']; frozen: boolean; change: (c: Schemas['ItemChange']) => void } =
    $props();
  const rules = {
    FIXED: 'fixed: must equal the master',
    ADAPTABLE: 'adaptable: kept where the section changed it',
    STARTER: 'starter: delivered once, then theirs',
  } as const;
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
        onchange={(e) => change({ rule: e.currentTarget.value as 'FIXED' })}
      >
        {#each Object.entries(rules) as [value, words] (value)}<option {value}>{words}</option
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
  {#if item.instructorsOnly}<span>For <b>instructors only</b></span>{/if}
  {#if item.due}<span>Due <b class="fig">{item.due.replace('T', ' ')}</b></span>{/if}
</div>

<style>
  .facts {
    display: flex;
    gap: 22px;
    align-items: center;
    padding: 7px 20px;
    border-top: 1px solid var(--line);
    background: var(--paper);
    font-size: 13px;
    color: var(--ink-2);
    white-space: nowrap;
    overflow: hidden;
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
    max-width: 300px;
  }
  b {
    color: var(--ink);
  }
</style>
