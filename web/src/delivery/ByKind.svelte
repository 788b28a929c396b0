<script lang="ts" generics="T extends string">
  import type { Kind } from '../api/client';
  import { kind as kindWord, kinds } from '../marks/words';
  import Choice from './Choice.svelte';

  /** Kinds for which something else is chosen than for the rest, as a part of a sentence. */
  let {
    label,
    words,
    made,
    other,
    choose,
  }: {
    label: string;
    words: Record<T, string>;
    made: Readonly<Partial<Record<Kind, T>>>;
    /** What a kind gets that is added. */
    other: T;
    choose: (to: Partial<Record<Kind, T>>) => void;
  } = $props();
  let chosen = $derived(kinds.filter((k) => made[k]));
  let more = $derived(
    Object.fromEntries([
      ['', chosen.length ? 'and …' : 'but …'],
      ...kinds.filter((k) => k !== 'MODULE' && !made[k]).map((k) => [k, `of ${kindWord(k, 2)} …`]),
    ]) as Record<string, string>,
  );
  let withNone = $derived({ ...words, '': 'as of the others' } as Record<string, string>);

  function set(k: Kind, to: string) {
    const rest = Object.fromEntries(Object.entries(made).filter(([x]) => x !== k));
    choose((to ? { ...rest, [k]: to } : rest) as Partial<Record<Kind, T>>);
  }
</script>

{#each chosen as k (k)}, of {kindWord(k, 2)}
  <Choice
    label="{label}, {kindWord(k, 2)}"
    words={withNone}
    value={made[k] as string}
    choose={(to) => set(k, to)}
  />{/each}
<Choice
  label="{label}, another kind"
  words={more}
  value=""
  choose={(k) => k && set(k as Kind, other)}
/>
