<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import WeekLoads from './WeekLoads.svelte';
  import { weekdays, type Calendar } from './ribbon';

  /** A calendar as it is entered: of the whole term, or of a part of it. */
  let {
    calendar,
    whole,
    masters,
    sections,
    done,
  }: {
    calendar?: Calendar;
    whole?: Calendar;
    masters: Schemas['MasterOfRibbon'][];
    /** That would go by it: those in hand, or all. */
    sections: string[];
    done: () => void;
  } = $props();

  type Entry = Schemas['CalendarEntry'];
  const fits: Record<Entry['fit'], string> = {
    SHARE_SAME_WEEKDAY: 'by the share of teaching days, to the nearest same weekday',
    SHARE: 'by the share of teaching days, to the day',
    AS_SAID: 'as they are: week 5 is week 5',
  };
  const fresh = (): Entry => ({
    ...structuredClone($state.snapshot((calendar ?? whole)!.says)),
    ...(calendar ? {} : { name: '', fit: 'SHARE_SAME_WEEKDAY' }),
  });
  let e = $state(untrack(fresh));
  let trouble = $state.raw<unknown>();
  let found = $state('');
  let file = $state<HTMLInputElement>();
  let of = $derived(calendar?.whole ? 'the whole term' : 'a part of the term');

  let moves = $state.raw<Schemas['MovedDue'][]>();
  let keepPast = $state(true);
  let past = $derived(moves?.filter((m) => m.past || m.handedIn) ?? []);
  const entry = () => ({
    ...e,
    finalsFirst: e.finalsFirst || undefined,
    finalsLast: e.finalsLast || undefined,
    off: e.off.filter((o) => o.name.trim() || o.first),
  });
  const short = (at: string) =>
    new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });

  async function look() {
    try {
      moves = await got(
        api.POST('/api/calendars/{calendar}/moves', {
          params: { path: { calendar: calendar!.id } },
          body: entry(),
        }),
      );
      trouble = undefined;
    } catch (x) {
      trouble = x;
    }
  }

  let loads = $state.raw<Schemas['LoadOfMaster'][]>();
  async function weigh() {
    try {
      loads = await got(
        api.POST('/api/calendars/load', {
          params: { query: { term: session.term!.id } },
          body: { calendar: entry(), whole: calendar?.whole ?? false, sections },
        }),
      );
      trouble = undefined;
    } catch (x) {
      trouble = x;
    }
  }

  async function save() {
    try {
      const body = entry();
      if (calendar)
        await got(
          api.PUT('/api/calendars/{calendar}', {
            params: {
              path: { calendar: calendar.id },
              query: { keepPast: keepPast && past.length > 0 },
            },
            body,
          }),
        );
      else
        await got(
          api.POST('/api/calendars', { params: { query: { term: session.term!.id } }, body }),
        );
      done();
    } catch (x) {
      trouble = x;
    }
  }

  async function end() {
    try {
      await got(
        api.DELETE('/api/calendars/{calendar}', { params: { path: { calendar: calendar!.id } } }),
      );
      done();
    } catch (x) {
      trouble = x;
    }
  }

  async function read(f?: File) {
    if (!f) return;
    try {
      const answer = await got(
        api.POST('/api/calendars/{calendar}/file', {
          params: { path: { calendar: (calendar ?? whole)!.id } },
          body: { text: await f.text() },
        }),
      );
      const has = new Set(e.off.map((o) => o.name + o.first));
      const more = answer.off.filter((o) => !has.has(o.name + o.first));
      e.off = [...e.off, ...more].sort((a, b) => a.first.localeCompare(b.first));
      found = `${many(more.length, 'day off', 'days off')} found${answer.outside ? `, ${answer.outside} events are of other times` : ''}. Take out what is none, then save.`;
      trouble = undefined;
    } catch (x) {
      trouble = x;
    }
    if (file) file.value = '';
  }

  function weekday(d: number, on: boolean) {
    e.weekdays = on ? [...e.weekdays, d].sort() : e.weekdays.filter((x) => x !== d);
  }
</script>

<form
  onsubmit={(x) => {
    x.preventDefault();
    void save();
  }}
>
  <h2>{calendar ? `Calendar of ${of}` : 'A calendar of a part of the term'}</h2>
  <label>Name <input class="entry" required maxlength="100" bind:value={e.name} /></label>
  <div class="two">
    <label>First day <input class="entry" type="date" required bind:value={e.first} /></label>
    <label>Last teaching day <input class="entry" type="date" required bind:value={e.last} /></label
    >
    <label>Finals from <input class="entry" type="date" bind:value={e.finalsFirst} /></label>
    <label>to <input class="entry" type="date" bind:value={e.finalsLast} /></label>
  </div>
  <label
    >Time zone <input
      class="entry"
      required
      maxlength="60"
      list="zones"
      bind:value={e.zone}
    /></label
  >
  <datalist id="zones">
    {#each ['America/New_York', 'America/Chicago', 'America/Denver', 'America/Los_Angeles', 'Europe/London', 'Europe/Berlin', 'UTC'] as z (z)}<option
        value={z}
      ></option>{/each}
  </datalist>
  <label
    >Weeks are counted <select class="entry" bind:value={e.weeks}>
      <option value="CALENDAR">as calendar weeks: a break counts</option>
      <option value="TEACHING">as teaching weeks: a break is passed over</option>
    </select></label
  >
  <fieldset>
    <legend>Taught on</legend>
    {#each [1, 2, 3, 4, 5, 6, 7] as d (d)}
      <label class="check"
        ><input
          type="checkbox"
          checked={e.weekdays.includes(d)}
          onchange={(x) => weekday(d, x.currentTarget.checked)}
        />{weekdays([d])}</label
      >
    {/each}
  </fieldset>
  {#if !calendar?.whole}
    <label
      >Patterns of the whole term come in <select class="entry" bind:value={e.fit}>
        {#each Object.entries(fits) as [value, words] (value)}<option {value}>{words}</option
          >{/each}
      </select></label
    >
  {/if}
  <h3>Days off</h3>
  {#each e.off as o, i (i)}
    <div class="off">
      <input class="entry" aria-label="Name of day off {i + 1}" required bind:value={o.name} />
      <button
        type="button"
        class="link"
        aria-label="Take out {o.name}"
        onclick={() => (e.off = e.off.filter((x) => x !== o))}>Take out</button
      >
      <input
        class="entry"
        type="date"
        aria-label="{o.name}, first day"
        required
        bind:value={o.first}
      />
      <input
        class="entry"
        type="date"
        aria-label="{o.name}, last day"
        required
        bind:value={o.last}
      />
    </div>
  {:else}
    <p class="quiet">None yet.</p>
  {/each}
  <div class="line">
    <Act onclick={() => (e.off = [...e.off, { name: '', first: e.first, last: e.first }])}
      >Add a day off</Act
    >
    <Act onclick={() => file?.click()}>From a calendar file …</Act>
    <input
      bind:this={file}
      hidden
      type="file"
      accept=".ics,text/calendar"
      aria-label="Calendar file"
      onchange={(x) => void read(x.currentTarget.files?.[0])}
    />
  </div>
  {#if found}<p role="status">{found}</p>{/if}
  {#if moves}
    <h3>
      {moves.length
        ? `${many(moves.length, 'due date moves', 'due dates move')}, as the drafts say them`
        : 'No due date moves'}
    </h3>
    <ul>
      {#each moves.slice(0, 12) as m, n (n)}
        <li>
          {m.course}, {m.title}: <span class="fig">{short(m.from)}</span> becomes
          <span class="fig">{m.to ? short(m.to) : 'no date'}</span>, {many(
            m.sections,
            'section',
          )}{m.handedIn ? ', handed in already' : ''}
        </li>
      {/each}
    </ul>
    {#if moves.length > 12}<p class="quiet">{moves.length - 12} more</p>{/if}
    {#if past.length}
      <label class="check"
        ><input type="checkbox" bind:checked={keepPast} />Keep the {past.length} that were due before
        today, or that students have handed in</label
      >
    {/if}
  {/if}
  {#if loads}<WeekLoads {loads} {masters} />{/if}
  <Trouble of={trouble} />
  <div class="line">
    <Act main type="submit">{calendar ? 'Save this calendar' : 'Make this calendar'}</Act>
    {#if calendar}<Act onclick={look}>See what moves</Act>{/if}
    {#if sections.length}<Act onclick={weigh}>See what each week would hold</Act>{/if}
    <Act onclick={done}>Leave</Act>
    {#if calendar && !calendar.whole}
      <button type="button" class="link" onclick={end}
        >Take it away: {many(calendar.sections, 'section goes', 'sections go')} by the whole term</button
      >
    {/if}
  </div>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
  }
  label {
    display: grid;
    gap: 2px;
    font-size: 13px;
    color: var(--ink-2);
  }
  .two,
  .off {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
  .off {
    border-bottom: 1px solid var(--line);
    padding-bottom: 8px;
  }
  .off .link {
    justify-self: end;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
  }
  legend,
  h3 {
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
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  label .entry {
    max-width: none;
  }
</style>
