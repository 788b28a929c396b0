<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import { limits, parameterLines, parametersOf } from './relink';
  import RuleForm from './RuleForm.svelte';

  /** Rules by which links are rewritten: tried out on all links, then kept. */
  let rules = $state.raw<Schemas['RelinkView'][] | null>(null);
  let proposed = $state.raw<Schemas['ProposedRelink'][]>([]);
  let masters = $state.raw<Schemas['MasterView'][]>([]);
  let campuses = $state.raw<Schemas['CampusView'][]>([]);
  const empty = (): Schemas['RelinkEntry'] => ({
    from: '',
    to: '',
    parameters: {},
    masters: [],
    terms: [],
    campuses: [],
  });
  let e = $state(empty());
  let sent = $state('');
  let tried = $state.raw<Schemas['RelinkTried'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let may = $derived(session.me?.role !== 'DESIGNER');
  keyList.of = [];

  async function load() {
    try {
      rules = await got(api.GET('/api/tools/rules'));
      proposed = await got(api.GET('/api/tools/rules/proposed'));
      masters = await got(api.GET('/api/masters'));
      campuses = await got(api.GET('/api/campuses'));
    } catch (x) {
      trouble = x;
    }
  }
  $effect(() => untrack(() => void load()));

  function entry(): Schemas['RelinkEntry'] {
    return {
      ...e,
      parameters: parametersOf(sent),
      fromDay: e.fromDay || undefined,
      untilDay: e.untilDay || undefined,
    };
  }

  async function tryOut() {
    if (!session.term) return;
    said = '';
    try {
      tried = await got(
        api.POST('/api/tools/rules/try', {
          params: { query: { term: session.term.id } },
          body: entry(),
        }),
      );
      trouble = null;
    } catch (x) {
      tried = null;
      trouble = x;
    }
  }

  function take(p: Schemas['ProposedRelink']) {
    e = { ...empty(), from: p.from, to: p.to };
    sent = '';
    tried = null;
    said = 'Taken below: try it on all links.';
  }

  async function keep() {
    try {
      await got(api.POST('/api/tools/rules', { body: entry() }));
      said = 'Kept. The next delivery writes links by it; the plan shows each.';
      e = empty();
      sent = '';
      tried = null;
      trouble = null;
      await load();
    } catch (x) {
      trouble = x;
    }
  }

  const path = (relink: string) => ({ params: { path: { relink } } });
  const end = (id: string) => act(() => api.DELETE('/api/tools/rules/{relink}', path(id)));
  const sooner = (id: string) => act(() => api.POST('/api/tools/rules/{relink}/sooner', path(id)));

  async function intoDraft(relink: string, master: string) {
    const code = masters.find((m) => m.id === master)?.code ?? '';
    try {
      const { items } = await got(
        api.POST('/api/tools/rules/{relink}/draft', { ...path(relink), body: { master } }),
      );
      said = items
        ? `${many(items, 'item')} of the draft of ${code} ${items === 1 ? 'leads' : 'lead'} there now; it can be undone there.`
        : `Nothing in the draft of ${code} is changed by it: a rule for a term, a campus or a section’s values waits for deliveries.`;
      trouble = null;
    } catch (x) {
      trouble = x;
    }
  }

  async function act(done: () => Parameters<typeof got>[0]) {
    try {
      await got(done());
      trouble = null;
      await load();
    } catch (x) {
      trouble = x;
    }
  }
</script>

<main>
  <p><a class="link" href="/tools">Tools</a></p>
  <h1>
    {rules === null
      ? 'Reading rules …'
      : rules.length
        ? `Links are rewritten by ${many(rules.length, 'rule')}`
        : 'No link is rewritten'}
  </h1>
  {#if proposed.length}
    <section aria-labelledby="proposed">
      <h2 id="proposed">Proposed by new editions</h2>
      <ul class="plain">
        {#each proposed as p (p.cartridge + p.edition + p.from)}
          <li>
            <span class="fig">{p.from}</span> becomes <span class="fig">{p.to}</span>
            <span class="quiet"
              >{many(p.links, 'link')} moved so in edition {p.edition} of {p.cartridge}</span
            >
            {#if may}<button class="link" onclick={() => take(p)}>Take it</button>{/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if rules?.length}
    <ol>
      {#each rules as r, i (r.id)}
        <li>
          <span class="fig">{r.rule.from}</span> becomes <span class="fig">{r.rule.to}</span>
          <span class="quiet"
            >{[
              ...parameterLines(r.rule.parameters),
              ...limits(r.rule, masters, session.terms, campuses),
            ].join(' · ')}</span
          >
          {#each r.rule.masters as m (m)}
            {@const code = masters.find((x) => x.id === m)?.code}
            {#if code}<button class="link" onclick={() => intoDraft(r.id, m)}
                >Write it into the draft of {code}</button
              >{/if}
          {/each}
          {#if may && i > 0}<button
              class="link"
              onclick={() => sooner(r.id)}
              aria-label="Let the rule for {r.rule.from} count sooner">Sooner</button
            >{/if}
          {#if may}<button
              class="link"
              onclick={() => end(r.id)}
              aria-label="End the rule for {r.rule.from}">End it</button
            >{/if}
        </li>
      {/each}
    </ol>
    <p class="quiet">
      The first that changes a link counts; none is applied to what another wrote.
    </p>
  {/if}
  {#if may}
    <RuleForm bind:e bind:sent {masters} {campuses} {tryOut} />
  {/if}
  <Trouble of={trouble} />
  {#if said}<p role="status">{said}</p>{/if}
  {#if tried}
    <section aria-label="Tried out">
      <h2>
        {tried.changed
          ? `${tried.changed} of ${many(tried.links, 'link')} would change, in ${many(tried.sections, 'section')}`
          : `None of ${many(tried.links, 'link')} would change`}
      </h2>
      {#if tried.changed && tried.changed === tried.links}
        <p class="mind">It is about every link there is. Say more closely which it is about.</p>
      {/if}
      {#if tried.leadsOn}
        <p class="mind">
          {many(tried.leadsOn, 'link')} would be changed again by another rule; they stay as they are.
        </p>
      {/if}
      {#if tried.some.length}
        <table>
          <thead><tr><th>Section</th><th>Before and after</th></tr></thead>
          <tbody>
            {#each tried.some as t, i (i)}
              <tr>
                <td class="fig">{t.section}</td>
                <td>
                  <span class="fig before">{t.before}</span><br />
                  <span class="fig">{t.after}</span>
                  {#if t.leadsOn}<br /><span class="quiet">the rule for {t.leadsOn} leads on</span
                    >{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        {#if tried.changed > tried.some.length}
          <p class="faint">The first {tried.some.length} are shown.</p>
        {/if}
      {/if}
      <Act main onclick={keep}>Keep this rule</Act>
    </section>
  {/if}
</main>

<style>
  main {
    padding: 12px 16px 24px;
    overflow: auto;
    max-width: 1100px;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  ol {
    margin: 0;
    padding-left: 20px;
    list-style: decimal;
  }
  li {
    padding: 3px 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 6px 0;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-3);
  }
  td,
  th {
    border-bottom: 1px solid var(--line-soft);
    padding: 4px 12px 4px 0;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  .before {
    color: var(--ink-2);
    text-decoration: line-through;
  }
  .mind {
    color: var(--mind);
  }
</style>
