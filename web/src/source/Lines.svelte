<script lang="ts" generics="Row extends Record<string, string>">
  import Act from '../frame/Act.svelte';

  /** Some rows of short entries, in an order. */
  let {
    rows = $bindable(),
    columns,
    fresh,
    more,
    label,
  }: {
    rows: Row[];
    columns: {
      name: keyof Row & string;
      words: string;
      wide?: boolean;
      choose?: [string, string][];
    }[];
    fresh: () => Row;
    more: string;
    label: string;
  } = $props();

  function move(i: number, by: number) {
    const all = [...rows];
    const [row] = all.splice(i, 1);
    all.splice(i + by, 0, row);
    rows = all;
  }
</script>

<fieldset>
  <legend class="words">{label}</legend>
  {#each rows as row, i (i)}
    <div class="row">
      {#each columns as c (c.name)}
        {#if c.choose}
          <select class="entry" aria-label="{c.words} {i + 1}" bind:value={row[c.name]}>
            {#each c.choose as [value, words] (value)}<option {value}>{words}</option>{/each}
          </select>
        {:else}
          <input
            class="entry"
            class:wide={c.wide}
            aria-label="{c.words} {i + 1}"
            placeholder={c.words}
            bind:value={row[c.name]}
          />
        {/if}
      {/each}
      <button type="button" aria-label="Up, row {i + 1}" disabled={!i} onclick={() => move(i, -1)}
        >↑</button
      >
      <button
        type="button"
        aria-label="Down, row {i + 1}"
        disabled={i === rows.length - 1}
        onclick={() => move(i, 1)}>↓</button
      >
      <button
        type="button"
        class="link"
        aria-label="Take out row {i + 1}"
        onclick={() => (rows = rows.filter((_, n) => n !== i))}>Take out</button
      >
    </div>
  {/each}
  <Act onclick={() => (rows = [...rows, fresh()])}>{more}</Act>
</fieldset>

<style>
  fieldset {
    display: grid;
    gap: 4px;
    justify-items: start;
  }
  .row {
    display: flex;
    gap: 6px;
    align-items: center;
    width: 100%;
  }
  .row .entry {
    width: 130px;
    min-width: 0;
  }
  .row select.entry {
    width: 190px;
  }
  .row .entry.wide {
    flex: 1;
  }
  button {
    cursor: pointer;
    color: var(--ink-2);
    flex: none;
  }
  button:disabled {
    opacity: 0.4;
  }
  button {
    min-width: 24px;
    min-height: 24px;
  }
</style>
