<script lang="ts">
  import { byCourse, candidates, why, type Followed, type Proposal } from './next';

  /** Which section follows which; changed one by one. */
  let {
    proposal,
    pair,
  }: {
    proposal: Proposal;
    /** `next` is the section that follows; none: nothing does; propose: worked out again. */
    pair: (section: string, next: string | null, propose: boolean) => Promise<void>;
  } = $props();
  let look = $state('');
  let changed = $state('');
  let opened = $state<Record<string, boolean>>({});
  let courses = $derived(byCourse(proposal.pairs, look));

  async function chosen(p: Followed, to: string) {
    await pair(p.from.id, to === 'none' || to === 'again' ? null : to, to === 'again');
    changed = '';
  }
</script>

<input
  class="entry find"
  type="search"
  placeholder="Find a section"
  aria-label="Find a section"
  bind:value={look}
/>
<table>
  <thead>
    <tr><th>This term</th><th>Instructor</th><th>Followed by</th><th>Instructor</th><th></th></tr>
  </thead>
  <tbody>
    {#each courses as c (c.course)}
      {@const open =
        opened[c.course] ?? (look !== '' || (c.without > 0 && proposal.fresh.length > 0))}
      <tr>
        <th colspan="5" scope="rowgroup">
          <button
            type="button"
            class="course"
            aria-expanded={open}
            onclick={() => (opened[c.course] = !open)}
            ><span aria-hidden="true">{open ? '▾' : '▸'}</span>
            {c.course}
            <span class="quiet"
              >{c.rows.length - c.without} of {c.rows.length} followed{c.without
                ? `, ${c.without} without a successor`
                : ''}</span
            ></button
          >
        </th>
      </tr>
      {#if open}
        {#each c.rows as p (p.from.id)}
          <tr>
            <td class="fig">{p.from.code} <span class="faint">{p.from.campus}</span></td>
            <td>{p.from.instructors}</td>
            {#if changed === p.from.id || (!p.to && proposal.fresh.length)}
              <td colspan="2">
                <select
                  class="entry"
                  aria-label="What follows {p.from.code}"
                  value={p.to?.id ?? 'none'}
                  onchange={(e) => chosen(p, e.currentTarget.value)}
                >
                  <option value="none">nothing follows it</option>
                  {#each candidates(p, proposal.fresh) as s (s.id)}<option value={s.id}
                      >{s.code} · {s.course} · {s.instructors || s.campus}</option
                    >{/each}
                  <option value="again">as it is proposed</option>
                </select>
              </td>
              <td></td>
            {:else}
              {#if p.to}
                <td class="fig">{p.to.code} <span class="faint">{p.to.campus}</span></td>
                <td>{p.to.instructors}</td>
              {:else}
                <td colspan="2" class="quiet">nothing follows it</td>
              {/if}
              <td class="end">
                <span class="quiet">{p.why ? why[p.why] : ''}</span>
                <button
                  type="button"
                  class="link"
                  aria-label="Change what follows {p.from.code}"
                  onclick={() => (changed = p.from.id)}>Change</button
                >
              </td>
            {/if}
          </tr>
        {/each}
      {/if}
    {:else}<tr><td colspan="5" class="quiet">No section is like this.</td></tr>{/each}
  </tbody>
</table>

<style>
  .find {
    width: 260px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
    margin-top: 6px;
  }
  th,
  td {
    text-align: left;
    padding: 3px 12px 3px 0;
    border-bottom: 1px solid var(--line-soft);
    font-weight: 400;
  }
  thead th {
    color: var(--ink-2);
  }
  .course {
    font-weight: 650;
    min-height: 24px;
  }
  .course .quiet {
    font-weight: 400;
    margin-left: 8px;
  }
  td .entry {
    min-width: 320px;
  }
  .end {
    text-align: right;
    white-space: nowrap;
    padding-right: 0;
  }
</style>
