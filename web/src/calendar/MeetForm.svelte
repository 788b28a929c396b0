<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import { weekdays } from './ribbon';

  /** When the sections in hand meet. */
  let { sections, done }: { sections: string[]; done: () => void } = $props();
  let days = $state<number[]>([]);
  let begins = $state('09:00');
  let ends = $state('10:15');
  let cancelled = $state<string[]>([]);
  let day = $state('');
  let trouble = $state.raw<unknown>();

  async function save() {
    try {
      await got(
        api.PUT('/api/calendars/meetings', {
          body: { sections, weekly: days.map((weekday) => ({ weekday, begins, ends })), cancelled },
        }),
      );
      done();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<form
  onsubmit={(x) => {
    x.preventDefault();
    void save();
  }}
>
  <h2>When {many(sections.length, 'section meets', 'sections meet')}</h2>
  <fieldset>
    <legend>Each week on</legend>
    {#each [1, 2, 3, 4, 5, 6, 7] as d (d)}
      <label class="check"
        ><input
          type="checkbox"
          checked={days.includes(d)}
          onchange={(x) =>
            (days = x.currentTarget.checked ? [...days, d].sort() : days.filter((y) => y !== d))}
        />{weekdays([d])}</label
      >
    {/each}
  </fieldset>
  <div class="two">
    <label>From <input class="entry" type="time" required bind:value={begins} /></label>
    <label>to <input class="entry" type="time" required bind:value={ends} /></label>
  </div>
  <div class="two">
    <label>A meeting that is cancelled <input class="entry" type="date" bind:value={day} /></label>
    <Act
      disabled={!day}
      onclick={() => {
        cancelled = [...new Set([...cancelled, day])].sort();
        day = '';
      }}>Cancel it</Act
    >
  </div>
  {#each cancelled as c (c)}
    <p>
      <span class="fig">{c}</span>
      <button
        type="button"
        class="link"
        onclick={() => (cancelled = cancelled.filter((x) => x !== c))}>Take out</button
      >
    </p>
  {/each}
  <Trouble of={trouble} />
  <div class="line">
    <Act main type="submit"
      >{days.length ? `Save for ${many(sections.length, 'section')}` : 'They do not meet'}</Act
    >
    <Act onclick={done}>Leave</Act>
  </div>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
    align-items: end;
  }
  fieldset,
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
  }
  label {
    display: grid;
    gap: 2px;
    font-size: 13px;
    color: var(--ink-2);
  }
  .check {
    min-height: 26px;
    display: flex;
    align-items: center;
    gap: 4px;
    color: var(--ink);
  }
</style>
