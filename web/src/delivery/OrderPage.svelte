<script lang="ts">
  import { api, counted, got, type Kind, type Schemas, type StepKind } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import { figure, many, stepWords } from '../marks/words';
  import OrderAbout from './OrderAbout.svelte';
  import OrderSentence from './OrderSentence.svelte';
  import OrderWhere from './OrderWhere.svelte';
  import TryFirst from './TryFirst.svelte';
  import RecipePick from './RecipePick.svelte';
  import PartsOutline from './PartsOutline.svelte';
  import { address, chosen, read, type Order } from './order';
  import { kindToggled, toggled } from './ticks';

  keyList.of = [
    ['Tab', 'From choice to choice'],
    ['arrows', 'Change a choice; from item to item'],
    ['Space', 'Bring an item, or leave it out'],
  ];
  let master = $state.raw<Schemas['MasterView'] | null>(null);
  let sections = $state.raw<string[]>([]);
  let forecast = $state.raw<Schemas['DeliveryForecast'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let busy = $state(false);
  /** The plan is being made; that the totals are not there yet keeps nobody from it. */
  let planning = $state(false);
  let text = $state('');
  let together = $state.raw<string[]>([]);

  let order = $derived(read(place.query));
  let of = $derived(place.get('of'));
  /** A shell to try it in first, or a shared one. */
  let tried = $derived(place.get('try'));
  let number = $derived(Number(place.get('v')));
  let versions = $derived([...(master?.versions ?? [])].reverse());
  let version = $derived(versions.find((v) => v.number === number) ?? versions[0]);

  $effect(() => {
    const params = { path: { id: place.get('master') } };
    if (params.path.id)
      void got(api.GET('/api/masters/{id}', { params })).then(
        (m) => (master = m),
        (e) => (trouble = e),
      );
  });
  $effect(() => {
    if (!of) sections = tried ? [tried] : [...hand.sections];
    else
      void got(api.GET('/api/deliveries/{id}', { params: { path: { id: of } } })).then(
        (d) => (sections = d.lines.map((l) => l.section)),
        (e) => (trouble = e),
      );
  });

  // The newest question counts; an answer that comes late is of an older one.
  let asked = 0;
  $effect(() => {
    if (!version || !sections.length) return;
    const mine = ++asked;
    const body = { version: version.id, sections, choices: chosen(order) };
    busy = true;
    void got(api.POST('/api/deliveries/forecast', { body })).then(
      (f) => {
        if (mine !== asked) return;
        forecast = f;
        trouble = null;
        busy = false;
      },
      (e) => {
        if (mine !== asked) return;
        trouble = e;
        busy = false;
      },
    );
  });

  function say(change: Partial<Order>) {
    place.set(address({ ...order, ...change }));
  }

  /** Brings an item that is left out, itself or with its kind or module. */
  function back(key: string) {
    const rows = forecast?.rows ?? [];
    const row = rows.find((r) => r.key === key && r.inVersion);
    say(
      row ? toggled(order, rows, row, 'off') : { without: order.without.filter((k) => k !== key) },
    );
  }

  async function plan() {
    if (!version) return;
    planning = true;
    try {
      if (of) {
        const params = { path: { id: of } };
        await got(api.PUT('/api/deliveries/{id}/choices', { params, body: chosen(order) }));
        place.go('/deliveries/' + of);
      } else {
        const recipe = place.get('recipe') || undefined;
        const body = {
          version: version.id,
          sections,
          choices: chosen(order),
          recipe,
          together: together.length ? together : undefined,
        };
        const made = await got(api.POST('/api/deliveries', { body }));
        place.go('/deliveries/' + made.id);
      }
    } catch (e) {
      trouble = e;
      planning = false;
    }
  }

  let kindCounts = $derived.by(() => {
    const all = new Map<Kind, { all: number; on: number }>();
    for (const r of forecast?.rows ?? []) {
      if (r.kind === 'MODULE' || !r.inVersion) continue;
      const k = all.get(r.kind) ?? { all: 0, on: 0 };
      all.set(r.kind, { all: k.all + 1, on: k.on + (r.chosen ? 1 : 0) });
    }
    return all;
  });
  let inVersion = $derived(
    new Set((forecast?.rows ?? []).filter((r) => r.inVersion).map((r) => r.key)),
  );
  let along = $derived((forecast?.rows ?? []).filter((r) => !r.chosen && r.along).length);
  let out = $derived(
    (forecast?.rows ?? []).filter((r) => r.inVersion && r.leftOut && r.kind !== 'MODULE').length,
  );
  const told: readonly StepKind[] = ['UPDATE', 'ADD', 'CLASH', 'KEEP', 'RETIRE', 'BLOCKED'];
  let totals = $derived(new Map(counted<StepKind>(forecast?.totals ?? {})));
</script>

<div class="page">
  <header>
    {#if master && version}
      <OrderSentence
        {master}
        {version}
        {versions}
        {order}
        {say}
        fixed={!!of}
        tried={!!tried}
        sections={sections.length}
        weeks={forecast?.weeks ?? 0}
        attaching={forecast?.attaching ?? 0}
        bind:together
      />
    {:else if !trouble}
      <h1>{place.get('master') ? 'Opening the master …' : 'Which master?'}</h1>
    {/if}
    <Trouble of={trouble} />
  </header>
  {#if master && !sections.length && !of}
    <main class="nothing">
      <h2>No section is in hand</h2>
      <p class="quiet">Take the sections in hand that it goes to, in Coverage; then come back.</p>
      <Act main onclick={() => place.go('/coverage')}>Choose sections</Act>
      <TryFirst chosen={tried} sections={0} choose={(s) => place.set({ try: s })} />
    </main>
  {:else if forecast && version}
    <main class="parts" aria-busy={busy}>
      <div class="find">
        <input
          class="entry"
          type="search"
          placeholder="Find in version {version.number}"
          aria-label="Find in version {version.number}"
          bind:value={text}
        />
        <span class="quiet cut"
          >{figure(forecast.items - along)} chosen · {figure(along)} come along · {figure(out)} left out</span
        >
        <span class="fig faint">sections</span>
      </div>
      <PartsOutline
        rows={forecast.rows}
        {order}
        {text}
        toggle={(r, t) => say(toggled(order, forecast!.rows, r, t))}
      />
    </main>
    <section class="about">
      <OrderAbout
        {forecast}
        {order}
        kinds={kindCounts}
        kind={(k, on) => say(kindToggled(order, k, on))}
        {back}
        {say}
        version={version.id}
        {sections}
        drop={of ? undefined : (ids) => hand.only(sections.filter((s) => !ids.includes(s)))}
      />
    </section>
    <aside class="aside">
      <OrderWhere {forecast} {sections}>
        {#if !of}
          <TryFirst chosen={tried} sections={hand.size} choose={(s) => place.set({ try: s })} />
          <RecipePick
            master={place.get('master')}
            {order}
            sections={sections.length}
            lost={order.items.filter((k) => !inVersion.has(k)).length}
          />
        {/if}
      </OrderWhere>
    </aside>
  {:else if master && version && !trouble}
    <main class="nothing quiet" role="status">
      Looking at what {many(sections.length, 'section')} hold …
    </main>
  {/if}
</div>
<HandFrame
  title={forecast
    ? `${many(forecast.items, 'item')} into ${many(sections.length, 'section')}`
    : 'Nothing has moved yet'}
>
  <span class="tot" aria-live="polite">
    {#each told.filter((k) => totals.get(k)) as k (k)}
      <span class="step">
        <StepMark kind={k} size={12} /><b class="fig">{figure(totals.get(k) ?? 0)}</b>
        <span class="quiet">{stepWords[k][totals.get(k) === 1 ? 0 : 1]}</span>
      </span>
    {/each}
  </span>
  {#if of}<Act onclick={() => place.go('/deliveries/' + of)}>Back to the plan</Act>{/if}
  <Act main disabled={planning || !forecast?.items || !sections.length} onclick={plan}
    >{of ? 'Plan it anew' : 'See the plan'}</Act
  >
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 560px) minmax(0, 1fr) minmax(0, 300px);
    grid-template-rows: auto minmax(0, 1fr);
  }
  header {
    grid-column: 1 / -1;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
    padding: 10px 16px 12px;
  }
  .parts {
    display: flex;
    flex-direction: column;
    min-height: 0;
    border-right: 1px solid var(--line);
  }
  .find {
    display: grid;
    grid-template-columns: minmax(120px, 200px) 1fr auto;
    gap: 12px;
    align-items: center;
    padding: 8px 14px 8px 16px;
  }
  .find .quiet {
    font-size: 13px;
  }
  .about {
    overflow: auto;
    padding: 10px 16px;
    min-height: 0;
  }
  .aside {
    overflow: auto;
    padding: 10px 16px;
    background: var(--paper);
    border-left: 1px solid var(--line);
    min-height: 0;
  }
  .nothing {
    grid-column: 1 / -1;
    padding: 20px 16px;
    max-width: 60ch;
  }
  .nothing p {
    margin: 6px 0 12px;
  }
  .tot {
    display: flex;
    gap: 14px;
    margin-right: 12px;
  }
  .step {
    display: flex;
    gap: 5px;
    align-items: center;
  }
  @media (max-width: 1180px) {
    .page {
      grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 220px);
    }
    .step .quiet {
      display: none;
    }
  }
</style>
