<script lang="ts">
  import { hand } from '../frame/hand.svelte';
  import { figure, many } from '../marks/words';
  import { shares, type Section } from './checks';

  /** How many sections are ready, by course and campus. */
  let { sections }: { sections: Section[] } = $props();
  let rows = $derived(shares(sections));
  let campuses = $derived([...new Set(sections.map((s) => s.campus))].sort());
</script>

<div class="room">
  <table>
    <thead>
      <tr>
        <th>Course</th>
        {#each campuses as c (c)}<th class="n">{c}</th>{/each}
        <th class="n">Ready</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as r (r.course)}
        <tr>
          <th scope="row" class="fig">{r.course}</th>
          {#each campuses as c (c)}
            {@const at = r.campuses.get(c)}
            <td class="n fig">
              {#if at && at.ids.length}
                <button
                  class="link"
                  aria-label="Take in hand {many(
                    at.ids.length,
                    'section',
                  )} of {r.course}, {c}, that {at.ids.length === 1 ? 'is' : 'are'} not ready"
                  onclick={() => hand.only(at.ids)}>{figure(at.ready)} of {figure(at.all)}</button
                >
              {:else if at}{figure(at.ready)} of {figure(at.all)}{/if}
            </td>
          {/each}
          <td class="n fig"><b>{figure(r.ready)}</b> of {figure(r.all)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .room {
    overflow: auto;
    min-height: 0;
    padding: 0 16px 64px 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
  }
  th,
  td {
    padding: 5px 10px 5px 0;
    border-bottom: 1px solid var(--line-soft);
    text-align: left;
    font-weight: inherit;
  }
  thead th {
    color: var(--ink-2);
    font-weight: 500;
    font-size: 13px;
  }
  .n {
    text-align: right;
  }
</style>
