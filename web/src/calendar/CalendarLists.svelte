<script lang="ts">
  import Act from '../frame/Act.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import Subscribe from './Subscribe.svelte';
  import { realDates, type Picture } from './ribbon';

  /** Calendars and masters of the term, and what is due to take along. */
  let {
    p,
    of,
    course,
    may,
    under,
    open,
  }: {
    p: Picture;
    /** Whose dates are taken along, in words. */
    of: string;
    /** Of which course; none: of all. */
    course?: string;
    /** Whether calendars may be changed. */
    may: boolean;
    /** Whether something stands above it. */
    under: boolean;
    /** Opens a form; its name and what it is about. */
    open: (at: Record<string, string>) => void;
  } = $props();

  const file = (format: string) => {
    const q = new URLSearchParams({ term: session.term!.id, format });
    if (course) q.set('course', course);
    return '/api/calendars/due/file?' + q.toString();
  };
</script>

<div class="lists" class:under>
  <h2>Calendars</h2>
  <ul>
    {#each p.calendars as c (c.id)}
      <li>
        {#if may}<button class="link" onclick={() => open({ calendar: c.id })}>{c.says.name}</button
          >{:else}{c.says.name}{/if}
        <span class="quiet"
          >{many(c.teachingDays, 'teaching day')}, {many(c.mondays.length, 'week')}, {many(
            c.sections,
            'section',
          )}</span
        >
      </li>
    {/each}
  </ul>
  {#if may}<Act onclick={() => open({ part: '1' })}>A calendar of a part of the term …</Act>{/if}
  <p class="quiet">
    What shells have, of {of}:
    <a class="link" download href={file('ICS')}>a calendar</a>,
    <a class="link" download href={file('XLSX')}>a table</a>
  </p>
  {#key course}<Subscribe term={session.term!.id} {course} />{/key}
  {#if p.masters.length}
    <h2>Masters</h2>
    <ul>
      {#each p.masters as m (m.id)}
        {@const n = realDates(p, m.id)}
        <li>
          <button class="link" onclick={() => open({ master: m.id })}>{m.code}</button>
          <span class="quiet cut">{n ? many(n, 'real date') : m.title}</span>
        </li>
      {/each}
    </ul>
  {/if}
</div>

<style>
  h2 {
    margin: 6px 0 2px;
  }
  .under {
    border-top: 1px solid var(--line);
    padding-top: 6px;
  }
  li {
    display: flex;
    gap: 0 8px;
    flex-wrap: wrap;
    padding: 2px 0;
    line-height: 18px;
  }
  ul {
    margin-bottom: 6px;
  }
</style>
