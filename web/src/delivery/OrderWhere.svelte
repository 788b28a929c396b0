<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '../api/client';
  import Standing from '../marks/Standing.svelte';
  import { figure, many } from '../marks/words';

  /** How the sections stand that a delivery goes to. */
  let {
    forecast,
    sections,
    children,
  }: {
    forecast: Schemas['DeliveryForecast'];
    sections: string[];
    children?: Snippet;
  } = $props();
  const numbers = ['one version', 'two versions', 'three versions', 'four versions'];
  let lines = $derived(
    Object.entries(forecast.stand)
      .map(([number, n]) => ({ number: Number(number), n }))
      .sort((a, b) => b.number - a.number)
      .map(({ number, n }) => {
        const behind = forecast.newest - number;
        return {
          n,
          never: !number,
          behind: number ? behind : 0,
          words: !number
            ? 'never received it'
            : behind
              ? `${numbers[behind - 1] ?? behind + ' versions'} behind`
              : 'hold the newest',
        };
      }),
  );
</script>

<h2>Where</h2>
<ul>
  {#each lines as l (l.words)}
    <li>
      <Standing size={15} never={l.never} behind={l.behind} />
      <span>{l.words}</span>
      <span class="fig">{figure(l.n)}</span>
    </li>
  {/each}
</ul>
{#if forecast.partial}
  <p class="quiet">
    {many(forecast.partial, 'section')} of these {forecast.partial === 1 ? 'lacks' : 'lack'} items of
    their version.
  </p>
{/if}
{@render children?.()}
<h2>Never touched</h2>
<p class="quiet">
  {forecast.students
    ? `The work, grades and posts of ${many(forecast.students, 'student')} in ${many(sections.length, 'section')}.`
    : 'Work, grades and posts of students.'}
  An item on which work was handed in is never removed, and how it is graded never changed, without a
  person’s word.
</p>
<h2>Told from the ledger</h2>
<p class="quiet">
  Shells are read when the plan is made; it shows twins and what was changed since they were last
  read.
</p>

<style>
  h2 {
    margin: 16px 0 4px;
  }
  h2:first-child {
    margin-top: 2px;
  }
  li {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr) auto;
    align-items: center;
    height: 25px;
  }
  p {
    font-size: 13.5px;
  }
</style>
