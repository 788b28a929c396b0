<script lang="ts">
  import Standing from '../marks/Standing.svelte';
  import When from '../frame/When.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import type { Master, Stand } from './model';

  let { chosen, master, stands }: { chosen: Stand[]; master?: Master; stands: Stand[] } = $props();

  const most = 14;
  let newest = $derived(master?.versions.at(-1));
  let holders = $derived(stands.filter((s) => s.master === master));
  let at = $derived(place.get('at'));
  let one = $derived(stands.filter((s) => s.section.id === at));
  let rows = $derived(
    [...chosen].sort((a, b) => b.behind - a.behind || a.section.code.localeCompare(b.section.code)),
  );
</script>

<aside class="aside">
  {#if one.length}
    {@const s = one[0].section}
    <section>
      <div class="line">
        <h2 class="fig">{s.code}</h2>
        <button class="tab" onclick={() => place.set({ at: '' })} aria-label="Close {s.code}"
          >Close</button
        >
      </div>
      <p class="quiet">{s.title}<br />{s.campus} · {s.instructors || 'nobody yet'}</p>
      {#each one as stand (stand.master.id)}
        <div class="row">
          <Standing
            share={stand.share}
            behind={stand.behind}
            never={stand.never}
            changed={stand.changed > 0}
            failed={stand.needsPerson}
          />
          <span class="fig cut">{stand.master.code}</span>
          <span class="quiet cut">
            {stand.never
              ? 'never received'
              : stand.behind
                ? many(stand.behind, 'version') + ' behind'
                : 'in step'}{stand.changed ? ', ' + many(stand.changed, 'item') + ' changed' : ''}
          </span>
          <span class="fig faint">{stand.never ? '' : 'v' + stand.number}</span>
        </div>
      {/each}
      <p class="ways">
        <button class="link" onclick={() => hand.toggle(s.id)}>
          {hand.has(s.id) ? 'Put it back' : 'Take it in hand'}
        </button>
        <a class="link" href="/sections/{s.id}">Every item of it</a>
      </p>
    </section>
  {/if}
  {#if master}
    <section>
      <h2>
        <a class="link" href="/sources/masters/{master.id}">{master.code} {master.title}</a>
      </h2>
      {#if newest}
        <p class="quiet">
          Version {newest.number} froze <When at={newest.frozenAt} />: {newest.note}.
        </p>
        <p class="ways">
          <a class="link" href="/coverage/drift/{master.id}">What sections changed of it</a>
          <a class="link" href="/coverage/rules?master={master.id}">Who should hold it</a>
        </p>
      {/if}
    </section>
    <section>
      <p class="faint">
        {chosen.length
          ? `${chosen.length} in hand of ${many(holders.length, 'section')}`
          : `${many(holders.length, 'section')}; none in hand`}
      </p>
      {#each rows.slice(0, most) as s (s.section.id)}
        <div class="row">
          <Standing
            share={s.share}
            behind={s.behind}
            never={s.never}
            changed={s.changed > 0}
            failed={s.needsPerson}
          />
          <button class="fig link plain" onclick={() => place.set({ at: s.section.id })}
            >{s.section.code}</button
          >
          <span class="quiet cut">{s.section.campus} · {s.section.instructors}</span>
          <span class="fig faint">{s.never ? '' : 'v' + s.number}</span>
        </div>
      {/each}
      {#if rows.length > most}<p class="quiet">{rows.length - most} more</p>{/if}
      {#if !rows.length}
        <p class="quiet">
          Sweep over marks, or press a number below them, to take sections in hand.
        </p>
      {/if}
    </section>
  {/if}
  <div class="legend" aria-label="Legend" role="group">
    <Standing size={17} /><span>Filled as far as the master has arrived</span>
    <Standing size={17} behind={2} /><span>One barb for each version behind</span>
    <Standing size={17} changed /><span>Something was changed in the section</span>
    <Standing size={17} never /><span>Expected here, never received</span>
    <Standing size={17} failed /><span>A delivery waits for you</span>
  </div>
</aside>

<style>
  .aside {
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
  .line {
    display: flex;
    justify-content: space-between;
  }
  .row {
    display: grid;
    grid-template-columns: 22px 66px 1fr auto;
    gap: 4px;
    align-items: center;
    height: 27px;
    border-bottom: 1px solid var(--line-soft);
  }
  .plain {
    text-align: left;
    text-decoration: none;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    padding-top: 6px;
  }
  .ways a {
    white-space: nowrap;
  }
  .legend {
    margin-top: auto;
    border-top: 1px solid var(--line);
    padding-top: 10px;
    display: grid;
    grid-template-columns: 26px 1fr;
    row-gap: 3px;
    color: var(--ink-2);
    font-size: 13px;
    align-items: center;
  }
</style>
