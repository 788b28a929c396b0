<script lang="ts">
  import { stageWords, type Stage } from './tools';

  /** Stages in their order: taken out, moved to the front, added at the end. */
  let { of = $bindable() }: { of: Stage[] } = $props();
  const all = Object.keys(stageWords) as Stage[];
  let others = $derived(all.filter((s) => !of.includes(s)));

  function earlier(i: number) {
    const next = [...of];
    [next[i - 1], next[i]] = [next[i], next[i - 1]];
    of = next;
  }
</script>

<ol>
  {#each of as s, i (s)}
    <li>
      <span>{stageWords[s]}</span>
      {#if i}
        <button
          type="button"
          class="link"
          aria-label="Earlier: {stageWords[s]}"
          onclick={() => earlier(i)}>earlier</button
        >
      {/if}
      <button
        type="button"
        class="link"
        aria-label="Without {stageWords[s]}"
        onclick={() => (of = of.filter((x) => x !== s))}>without</button
      >
    </li>
  {/each}
</ol>
{#if others.length}
  <select
    class="entry"
    aria-label="Add a stage"
    value=""
    onchange={(e) => {
      of = [...of, e.currentTarget.value as Stage];
      e.currentTarget.value = '';
    }}
  >
    <option value="">Add a stage …</option>
    {#each others as s (s)}<option value={s}>{stageWords[s]}</option>{/each}
  </select>
{/if}

<style>
  ol {
    margin: 0;
    padding-left: 18px;
    list-style: decimal;
    font-size: 13.5px;
  }
  li {
    line-height: 22px;
  }
  li button {
    font-size: 12.5px;
    margin-left: 6px;
  }
</style>
