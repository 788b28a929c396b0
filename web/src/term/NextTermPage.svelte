<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Choice from '../delivery/Choice.svelte';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import PairTable from './PairTable.svelte';
  import { becomes, changed, recipes, sum, type Onward, type Proposal } from './next';

  /** One term brought into the next: what follows what, which masters come, what goes along. */
  keyList.of = [];
  let proposal = $state.raw<Proposal | null>(null);
  let trouble = $state.raw<unknown>(null);
  let planning = $state(false);
  let from = $derived(place.get('from') || (session.term?.id ?? ''));
  let at = $derived(session.terms.findIndex((t) => t.id === from));
  let to = $derived(
    place.get('to') ||
      (session.terms[at - 1] ?? session.terms.find((t) => t.id !== from))?.id ||
      '',
  );
  let query = $derived({ from, to });
  let names = $derived(Object.fromEntries(session.terms.map((t) => [t.id, t.title])));
  let others = $derived(
    Object.fromEntries(session.terms.filter((t) => t.id !== from).map((t) => [t.id, t.title])),
  );

  async function load() {
    if (!query.from || !query.to) return;
    try {
      proposal = await got(api.GET('/api/coverage/next-term', { params: { query } }));
    } catch (e) {
      proposal = null;
      trouble = e;
    }
  }
  $effect(() => void load());

  async function change(what: Promise<unknown>) {
    trouble = null;
    try {
      await what;
    } catch (e) {
      trouble = e;
    }
    await load();
  }
  const pair = (section: string, next: string | null, propose: boolean) =>
    change(
      got(
        api.PUT('/api/coverage/next-term/pairs', {
          params: { query },
          body: { section, to: next ?? undefined, propose },
        }),
      ),
    );
  const master = (m: Schemas['MasterComing'], said: string, recipe: string) =>
    change(
      got(
        api.PUT('/api/coverage/next-term/masters', {
          params: { query },
          body: {
            master: m.master,
            pinned: Number(said) || undefined,
            leftOut: said === 'out',
            recipe: recipe || undefined,
            noRecipe: !recipe && m.recipes.length > 0,
          },
        }),
      ),
    );
  const text = (x: Schemas['TextOfSections'], onward: Onward) =>
    change(
      got(
        api.PUT('/api/coverage/next-term/texts', {
          params: { query },
          body: { master: x.master, item: x.item, onward },
        }),
      ),
    );
  const as = (m: Schemas['MasterComing']) =>
    m.leftOut ? 'out' : m.pinned ? String(m.number) : 'newest';
  const comes = (m: Schemas['MasterComing']): Record<string, string> => ({
    newest: `its newest version, ${m.newest} now`,
    ...Object.fromEntries(
      Array.from({ length: m.newest }, (_, n) => [
        String(m.newest - n),
        `version ${m.newest - n}, and no later`,
      ]),
    ),
    out: 'not brought',
  });

  async function plan() {
    planning = true;
    trouble = null;
    try {
      const made = await got(api.POST('/api/coverage/next-term', { params: { query } }));
      if (made.deliveries.length === 1) place.go('/deliveries/' + made.deliveries[0]);
      else place.go('/deliveries');
    } catch (e) {
      trouble = e;
      await load();
    }
    planning = false;
  }
</script>

{#snippet enter()}<a class="link" href="/calendar" onclick={() => session.choose(to)}>Enter it</a
  >{/snippet}
<main class="page folio">
  <h1>
    Bring <Choice
      label="From term"
      words={names}
      value={from}
      choose={(t) => place.set({ from: t, to: to === t ? '' : to })}
    /> into <Choice
      label="Into term"
      words={others}
      value={to}
      choose={(t) => place.set({ to: t })}
    />
  </h1>
  <Trouble of={trouble} />
  {#if !to}
    <p class="quiet">There is no other term yet. A roster file brings it, under College.</p>
  {:else if proposal}
    <p class="quiet">
      {sum(proposal)}. What is changed here is kept; the earlier term stays as it is.
    </p>
    {#if proposal.busy.length}
      <p title={proposal.busy.join(', ')}>
        {proposal.busy.length === 1
          ? `${proposal.busy[0]} is left to a delivery that is planned for it`
          : `${proposal.busy.length} sections are left to deliveries that are planned for them`}:
        <a class="link" href="/deliveries">look at those first</a>, then come back.
      </p>
    {/if}
    <div class="room">
      <section aria-label="Masters">
        <h2>Masters that come</h2>
        <table>
          <tbody>
            {#each proposal.masters as m (m.master)}
              <tr>
                <td><b class="fig">{m.code}</b> <span class="quiet">{m.title}</span></td>
                <td
                  ><Choice
                    label="How {m.code} comes"
                    words={comes(m)}
                    value={as(m)}
                    choose={(v) => master(m, v, m.recipe ?? '')}
                  /></td
                >
                <td
                  >{#if m.recipes.length && !m.leftOut}<Choice
                      label="By which recipe {m.code} comes"
                      words={recipes(m)}
                      value={m.recipe ?? ''}
                      choose={(r) => master(m, as(m), r)}
                    />{/if}</td
                >
                <td class="n">{many(m.sections, 'section')}</td>
                <td class="n quiet"
                  >{m.leftOut ? '' : m.open ? `${m.open} to be brought` : 'all brought'}</td
                >
              </tr>
            {:else}<tr
                ><td class="quiet"
                  >None yet: no section holds a master, and no rule says who should. Begin under
                  <a class="link" href="/coverage/rules">Who should hold what</a>.</td
                ></tr
              >{/each}
          </tbody>
        </table>
      </section>
      {#if !proposal.entered || proposal.parts.length}
        <section aria-label="Calendars">
          <h2>Calendars</h2>
          {#if !proposal.entered}
            <p>
              {names[to]} has no calendar yet, so dates know of no days off.
              {@render enter()} before this is planned.
            </p>
          {/if}
          {#each proposal.parts as p (p.name)}
            <p>
              <b>{p.name}</b>:
              {#if p.there}
                {many(p.sections, 'section')} will go by its calendar, as those before them did.
              {:else}
                {many(p.sections, 'section')} follow such as went by it, and {names[to]} has no calendar
                of that name. <a class="link" href="/calendar?term={to}">Enter it</a>, or they go by
                the whole term.
              {/if}
            </p>
          {/each}
        </section>
      {/if}
      {#if proposal.texts.length}
        <section aria-label="Texts">
          <h2>What sections made of texts</h2>
          <p class="quiet">
            Said once, and remembered for the terms after. What goes along goes with its master,
            where the same person teaches, without links into the old shell.
          </p>
          <table>
            <tbody>
              {#each proposal.texts as x (x.master + x.item)}
                <tr>
                  <td><b>{x.title}</b> <span class="faint">{x.code}</span></td>
                  <td class="quiet">{changed(x)}</td>
                  <td
                    ><Choice
                      label="What becomes of {x.title} of {x.code}"
                      words={becomes(x)}
                      value={x.onward ?? ''}
                      choose={(o) => o && text(x, o as Onward)}
                    /></td
                  >
                  <td class="n quiet"
                    >{!x.into
                      ? 'no section is left for it'
                      : x.onward === 'AGAIN' || x.onward === 'BLANKS'
                        ? `into ${many(x.into, 'section')}`
                        : ''}</td
                  >
                  <td class="n"
                    ><a class="link" href="/coverage/items/{x.master}/{x.item}"
                      >{x.onward === 'TO_MASTER' ? 'Take it into the master' : 'Look'}</a
                    ></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </section>
      {/if}
      <section aria-label="Sections">
        <h2>Sections</h2>
        <PairTable {proposal} {pair} />
      </section>
    </div>
  {:else if !trouble}<p class="quiet" role="status">Working it out …</p>{/if}
</main>
<HandFrame
  title={proposal?.open
    ? `${many(proposal.open, 'section')} to be brought`
    : proposal?.busy.length
      ? 'Nothing more until those deliveries are done'
      : 'Nothing to be brought'}
  words="Planned as deliveries; nothing moves before they are confirmed."
>
  <Act main disabled={!proposal?.open || planning} onclick={plan}
    >Plan it for {many(proposal?.open ?? 0, 'section')}</Act
  >
</HandFrame>

<style>
  .page {
    display: flex;
    flex-direction: column;
    gap: 6px;
    min-height: 0;
  }
  .room {
    overflow: auto;
    min-height: 0;
    padding-bottom: 64px;
  }
  section {
    margin-bottom: 14px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
  }
  td {
    padding: 3px 12px 3px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
</style>
