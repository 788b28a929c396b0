<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Choice from '../delivery/Choice.svelte';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import { filterWords, sets, type SectionSet } from './sets.svelte';

  /** Which sections ought to hold which master at which version, and the sets this is said of. */
  type Rule = Schemas['CoverageRule'];
  let rules = $state.raw<Rule[] | null>(null);
  let masters = $state.raw<Schemas['MasterView'][]>([]);
  let courses = $state.raw<Schemas['Course'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let master = $state('');
  let where = $state('every');
  let at = $state('newest');
  keyList.of = [];

  /** What was refused stays told while the page is read again. */
  async function load() {
    const term = session.term?.id;
    if (!term) return;
    try {
      rules = await got(api.GET('/api/coverage/rules', { params: { query: { term } } }));
      await sets.load();
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());
  $effect(() => {
    void Promise.all([got(api.GET('/api/masters')), got(api.GET('/api/courses'))]).then(
      ([m, c]) => {
        masters = m;
        courses = c;
        master ||= place.get('master') || (m.find((x) => x.yours && !x.retiredAt)?.id ?? '');
        if (!(where in places)) where = Object.keys(places)[0];
      },
      (e) => (trouble = e),
    );
  });

  async function act(what: () => Promise<unknown>, words = '') {
    trouble = null;
    try {
      await what();
      said = words;
    } catch (e) {
      trouble = e;
    }
    await load();
  }
  const pin = (r: Rule, to: string) =>
    act(() =>
      got(
        api.PUT('/api/coverage/rules/{rule}', {
          params: { path: { rule: r.id } },
          body: { pinned: to === 'newest' ? undefined : Number(to) },
        }),
      ),
    );
  const end = (r: Rule) =>
    act(
      () => got(api.DELETE('/api/coverage/rules/{rule}', { params: { path: { rule: r.id } } })),
      `${r.masterCode} is no longer expected in ${about(r)}.`,
    );
  const add = () =>
    act(
      () =>
        got(
          api.POST('/api/coverage/rules', {
            body: {
              master,
              program: where.split('@')[1],
              course: where.startsWith('course:') ? where.slice(7) : undefined,
              set: where.startsWith('set:') ? where.slice(4).split('@')[0] : undefined,
              pinned: at === 'newest' ? undefined : Number(at),
            },
          }),
        ),
      'The board shows now who is missing.',
    );

  const within = (words: string, program?: string) => (program ? `${words} of ${program}` : words);
  const about = (r: Rule) =>
    r.scope === 'SET'
      ? r.program
        ? `the set “${r.set}” in ${r.program}`
        : `the set “${r.set}”`
      : r.scope === 'COURSE'
        ? `sections of ${r.course}`
        : within('every section', r.program);
  const versions = (id: string): Record<string, string> => ({
    newest: 'its newest version',
    ...Object.fromEntries(
      (masters.find((m) => m.id === id)?.versions ?? []).map((v) => [
        String(v.number),
        `version ${v.number}, and no later`,
      ]),
    ),
  });
  let ours = $derived(masters.filter((m) => m.yours && !m.retiredAt));
  let masterWords = $derived(Object.fromEntries(ours.map((m) => [m.id, m.code])));
  /** A rule reaches no further than who makes it. */
  let bounds = $derived(
    session.me?.wholeCollege ? [] : (session.me?.programs ?? []).map((p) => [p.id, p.name]),
  );
  let places = $derived({
    ...(bounds.length
      ? Object.fromEntries(bounds.map(([id, name]) => [`every@${id}`, `every section of ${name}`]))
      : { every: 'every section' }),
    ...Object.fromEntries(courses.map((c) => [`course:${c.id}`, `sections of ${c.code}`])),
    ...Object.fromEntries(
      sets.all.flatMap((s) =>
        bounds.length
          ? bounds.map(([id, name]) => [`set:${s.id}@${id}`, `the set “${s.name}” in ${name}`])
          : [[`set:${s.id}`, `the set “${s.name}”`]],
      ),
    ),
  } as Record<string, string>);

  async function take(s: SectionSet) {
    await act(async () => hand.only(await sets.sections(s.id)));
  }
</script>

<div class="page">
  <main>
    <h1>Who should hold what</h1>
    <p class="quiet lead">
      A section that a rule names and that lacks the master stands under “never received”. Of
      several rules the narrowest counts: a set before a course before a program before every
      section.
    </p>
    <Trouble of={trouble} />
    {#if said}<p class="quiet" role="status">{said}</p>{/if}
    {#if rules}
      <table>
        <thead>
          <tr>
            <th>Master</th><th>Expected in</th><th>At</th><th class="n">Sections</th><th></th>
          </tr>
        </thead>
        <tbody>
          {#each rules as r (r.id)}
            <tr>
              <td><b class="fig">{r.masterCode}</b> <span class="quiet">{r.masterTitle}</span></td>
              <td>{about(r)}</td>
              <td
                >{#if r.yours}<Choice
                    label="Version of {r.masterCode} in {about(r)}"
                    words={versions(r.master)}
                    value={r.pinned ? String(r.pinned) : 'newest'}
                    choose={(v) => pin(r, v)}
                  />{:else}{versions(r.master)[r.pinned ? String(r.pinned) : 'newest']}{/if}</td
              >
              <td class="n fig">{r.sections}</td>
              <td class="n"
                >{#if r.yours}<button
                    type="button"
                    class="link quiet"
                    aria-label="End the rule for {r.masterCode} in {about(r)}"
                    onclick={() => end(r)}>End it</button
                  >{/if}</td
              >
            </tr>
          {:else}
            <tr
              ><td colspan="5" class="quiet"
                >No rule yet: no section is expected to hold anything.</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      {#if ours.length}
        <h2>One more</h2>
        <p class="sentence">
          <Choice
            label="Master"
            words={masterWords}
            value={master}
            choose={(m) => {
              master = m;
              at = 'newest';
            }}
          /> is expected in <Choice
            label="Where"
            words={places}
            value={where}
            choose={(w) => (where = w)}
          /> at <Choice
            label="Version"
            words={versions(master)}
            value={at}
            choose={(v) => (at = v)}
          />.
          <Act onclick={add}>Add the rule</Act>
        </p>
      {/if}
    {:else if !trouble}<p class="quiet" role="status">Reading the rules …</p>{/if}
  </main>
  <aside class="aside">
    <h2>Section sets</h2>
    {#each sets.all as s (s.id)}
      <div class="set">
        <b class="cut">{s.name}</b>
        <span class="fig">{s.sections}</span>
        <span class="quiet"
          >{s.filter ? `by filter: ${filterWords(s.filter)}` : 'by hand'} · {s.madeBy}{s.rules
            ? ` · ${many(s.rules, 'rule')}`
            : ''}</span
        >
        <span class="ways">
          <button
            type="button"
            class="link"
            disabled={!s.sections}
            aria-label="Take the sections of {s.name} in hand"
            onclick={() => take(s)}>Take in hand</button
          >
          {#if s.mine && !s.rules}
            <button
              type="button"
              class="link quiet"
              aria-label="End the set {s.name}"
              onclick={() => act(() => sets.end(s.id))}>End it</button
            >
          {/if}
        </span>
      </div>
    {:else}
      <p class="quiet">
        None yet. In Coverage, take sections in hand or filter them, then keep that as a set.
      </p>
    {/each}
  </aside>
</div>
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words=""
>
  <Act onclick={() => place.go('/coverage')}>Back to coverage</Act>
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside);
  }
  main {
    padding: 12px 16px;
    overflow: auto;
  }
  .lead {
    max-width: 76ch;
    margin: 4px 0 10px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  th,
  td {
    padding: 3px 12px 3px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
  h2 {
    margin: 16px 0 4px;
  }
  aside h2 {
    margin-top: 0;
  }
  .sentence {
    font-size: 15px;
    line-height: 30px;
  }
  .set {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .set .quiet:not(.link),
  .ways {
    grid-column: 1 / -1;
  }
  .ways {
    display: flex;
    gap: 14px;
  }
</style>
