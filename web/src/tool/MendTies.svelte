<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { place } from '../frame/place.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import { byReason, reasonWords, type Cell, type HostBand } from './tools';

  /** Gives sections that are wrongly tied a course of their own on the tool's side. */
  let { host, cells, begun }: { host: HostBand; cells: Cell[]; begun: () => void } = $props();

  let named = $state(false);
  let course = $state('{section}-{term}');
  let trouble = $state.raw<unknown>(null);
  let said = $state('');

  async function mend(event: SubmitEvent) {
    event.preventDefault();
    try {
      const done = await got(
        api.POST('/api/tools/ties', {
          body: {
            sections: cells.map((c) => c.section.id),
            host: host.host,
            course: named ? course : undefined,
          },
        }),
      );
      trouble = null;
      begun();
      if (done.byHand.length) {
        said = `${many(done.byHand.length, 'shell')} can be written to by hand alone: name the course there.`;
      } else place.set({ mend: '' });
    } catch (e) {
      trouble = e;
    }
  }
</script>

<form onsubmit={mend}>
  <div class="line">
    <h2>Mend {many(cells.length, 'tie')} of {host.name}</h2>
    <button type="button" class="tab" onclick={() => place.set({ mend: '' })}>Close</button>
  </div>
  <ul class="plain">
    {#each byReason(cells) as [reason, some] (reason)}
      <li class="sum"><b class="fig">{some.length}</b><span>{reasonWords[reason]}</span></li>
    {/each}
  </ul>
  <ul class="plain">
    {#each cells.slice(0, 8) as c (c.section.id)}
      <li>
        <b class="fig">{c.section.code}</b>
        <span class="quiet">comes to <span class="fig">{c.course}</span></span>
      </li>
    {/each}
    {#if cells.length > 8}<li class="quiet">and {cells.length - 8} more</li>{/if}
  </ul>
  <label class="way"
    ><input type="radio" name="way" checked={!named} onchange={() => (named = false)} /><span
      ><b>Instructors answer anew</b><br />Their next opening counts. They are told to answer: a new
      copy.</span
    ></label
  >
  <label class="way"
    ><input type="radio" name="way" checked={named} onchange={() => (named = true)} /><span
      ><b>Launches name the course</b><br />Where the tool takes one. It makes a new copy at the
      first opening.</span
    ></label
  >
  {#if named}
    <label
      >Course of each section <input
        class="entry fig"
        required
        maxlength="400"
        spellcheck="false"
        bind:value={course}
      /></label
    >
  {/if}
  <Trouble of={trouble} />
  {#if said}<p role="status">{said}</p>{/if}
  <Act main type="submit">{named ? 'Name' : 'Ask anew for'} {many(cells.length, 'course')}</Act>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  form > label:not(.way) {
    width: 100%;
  }
  .line {
    display: flex;
    justify-content: space-between;
    width: 100%;
  }
  .way {
    display: flex;
    gap: 8px;
    align-items: baseline;
    font-size: 13px;
  }
  .sum {
    display: flex;
    gap: 8px;
  }
  label .entry {
    display: block;
    width: 100%;
    max-width: none;
  }
</style>
