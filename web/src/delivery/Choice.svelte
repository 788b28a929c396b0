<script lang="ts" generics="T extends string">
  /** A choice as a part of a sentence, changed where it stands. */
  let {
    label,
    words,
    value,
    choose,
  }: {
    label: string;
    words: Record<T, string>;
    value: T;
    choose: (to: T) => void;
  } = $props();
</script>

<select
  class="choice"
  aria-label={label}
  {value}
  onchange={(e) => choose(e.currentTarget.value as T)}
>
  {#each Object.entries(words) as [key, text] (key)}<option value={key}>{text}</option>{/each}
</select>

<style>
  .choice {
    field-sizing: content;
    max-width: 100%;
    font: inherit;
    font-weight: 650;
    color: var(--ink);
    background-color: transparent;
    border: 0;
    border-bottom: 2px solid var(--do);
    border-radius: 0;
    padding: 0 18px 0 2px;
    height: 28px;
    cursor: pointer;
    background-position: right 2px center;
    background-size: 12px;
    box-shadow: none;
  }
  .choice:hover {
    background-color: var(--do-soft);
  }
  .choice:focus-visible {
    outline: 2px solid var(--do);
    outline-offset: 1px;
  }
  .choice option {
    font-weight: 400;
    font-size: 14px;
    background: var(--raise);
  }
</style>
