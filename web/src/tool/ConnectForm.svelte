<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { place } from '../frame/place.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import Tie from '../marks/Tie.svelte';
  import Passes from './Passes.svelte';
  import Registered from './Registered.svelte';
  import Served from './Served.svelte';
  import Stages from './Stages.svelte';
  import {
    wayWords,
    type Cell,
    type Connection,
    type HostBand,
    type Stage,
    type Tools,
  } from './tools';

  /** A connection is entered once, tried, and kept; its secret is written and never shown. */
  let {
    tools,
    host,
    chosen,
    connection,
    begun,
  }: { tools: Tools; host: HostBand; chosen: Cell[]; connection?: Connection; begun: () => void } =
    $props();

  type Entry = Schemas['ConnectionEntry'];
  function fresh(): Entry {
    return {
      name: host.name === host.host ? '' : host.name,
      hosts: [host.host],
      way: 'KEY_AND_SECRET',
      level: 'COLLEGE',
      scopeOf: '',
      stages: ['CREDENTIALS'],
      pairing: 'BY_RULE',
      words: '',
      waitMinutes: 0,
      sendsName: true,
      sendsMail: false,
      grades: false,
      dates: 'SENT_ONCE',
      owner: '',
      key: '',
      approved: false,
      terms: [],
      course: '',
      mastersCourses: [],
    };
  }
  function kept(c: Connection): Entry {
    const { id, secret, entered, ...rest } = c;
    void [id, secret, entered];
    return { ...rest, key: c.key ?? '' };
  }
  // svelte-ignore state_referenced_locally
  let e = $state<Entry>(connection ? kept(connection) : fresh());
  let secret = $state('');
  // svelte-ignore state_referenced_locally
  let hosts = $state(e.hosts.join(', '));
  let tried = $state.raw<Schemas['TriedAnswer'] | null>(null);
  let trying = $state(false);
  let trouble = $state.raw<unknown>(null);
  /** Whose values are filled in where one launch is tried. */
  let as = $derived(chosen[0] ?? host.cells[0]);
  let patterned = $derived(/\{/.test(e.key + secret + (e.registration?.deployment ?? '')));
  let courses = $derived([...new Set(tools.sections.map((s) => s.course))].sort());

  function body(): Entry {
    return {
      ...e,
      hosts: hosts.split(/[\s,]+/).filter(Boolean),
      secret: secret || undefined,
      expires: e.expires || undefined,
      bothUntil: e.bothUntil || undefined,
    };
  }

  async function tryOne() {
    trying = true;
    tried = null;
    try {
      tried = await got(
        api.POST('/api/tools/connections/try', {
          body: {
            connection: connection?.id,
            section: as?.section.id,
            host: host.host,
            way: e.way,
            key: e.key,
            secret: secret || undefined,
            registration: e.registration,
          },
        }),
      );
      trouble = null;
    } catch (x) {
      trouble = x;
    }
    trying = false;
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      if (connection)
        await got(
          api.PUT('/api/tools/connections/{id}', {
            params: { path: { id: connection.id } },
            body: body(),
          }),
        );
      else await got(api.POST('/api/tools/connections', { body: body() }));
      secret = '';
      begun();
      place.set({ enter: '' });
    } catch (x) {
      trouble = x;
    }
  }

  async function end() {
    if (!connection) return;
    try {
      await got(
        api.DELETE('/api/tools/connections/{id}', { params: { path: { id: connection.id } } }),
      );
      begun();
      place.set({ enter: '' });
    } catch (x) {
      trouble = x;
    }
  }

  function way(to: Entry['way']) {
    e.way = to;
    const others = e.stages.filter((s: Stage) => s !== 'CREDENTIALS');
    e.stages = to === 'OPEN' ? others : ['CREDENTIALS', ...others];
    if (to === 'OPEN') e.key = '';
    if (to !== 'KEY_AND_SECRET') secret = '';
    e.registration =
      to === 'REGISTRATION'
        ? { deployment: '', login: 'https://', launches: ['https://'], keySet: 'https://' }
        : undefined;
  }
</script>

<form onsubmit={keep}>
  <div class="line">
    <h2>{connection ? `Change ${connection.name}` : `Connect ${host.host}`}</h2>
    <button type="button" class="tab" onclick={() => place.set({ enter: '' })}>Close</button>
  </div>
  <label>Name <input class="entry" required maxlength="200" bind:value={e.name} /></label>
  <label
    >Way
    <select
      class="entry"
      value={e.way}
      onchange={(x) => way(x.currentTarget.value as Entry['way'])}
    >
      {#each Object.entries(wayWords) as [w, words] (w)}<option value={w}>{words}</option>{/each}
    </select></label
  >
  {#if e.way === 'REGISTRATION' && e.registration}
    <Registered bind:client={e.key} bind:of={e.registration} issuer={tools.issuer} />
  {:else if e.way === 'KEY_AND_SECRET'}
    <label
      >Consumer key <input
        class="entry fig"
        maxlength="400"
        autocomplete="off"
        spellcheck="false"
        bind:value={e.key}
      /></label
    >
    <label
      >Shared secret; never shown again
      <input
        class="entry fig"
        type="password"
        maxlength="400"
        autocomplete="new-password"
        placeholder={connection?.secret ? 'as it is' : ''}
        bind:value={secret}
      /></label
    >
  {/if}
  <div class="try">
    <Act onclick={tryOne} disabled={trying}>Try one launch</Act>
    <span role="status">
      {#if trying}<span class="quiet">Launching …</span>
      {:else if tried?.opened}
        <span class="ok"
          ><Tie kind="works" size={15} />opened in {tried.millis} ms{patterned
            ? `, as ${as.section.code}`
            : ''}</span
        >
      {:else if tried}<span class="harm"><Tie kind="wrong" size={15} />{tried.said}</span>{/if}
    </span>
  </div>
  <fieldset>
    <legend>What it asks for, in its order</legend>
    <Stages bind:of={e.stages} />
    {#if e.stages.includes('WAIT')}
      <label
        >Minutes of the wait <input
          class="entry n"
          type="number"
          min="0"
          max="1440"
          bind:value={e.waitMinutes}
        /></label
      >
    {/if}
    {#if e.stages.includes('PAIRING')}
      <label
        >A section comes to its course
        <select
          class="entry"
          value={e.pairing}
          onchange={(x) => {
            e.pairing = x.currentTarget.value as Entry['pairing'];
            e.course = e.pairing === 'BY_PARAMETER' ? '{section}-{term}' : '';
          }}
        >
          <option value="BY_RULE">by itself: one for each shell</option>
          <option value="BY_ANSWER">by the instructor’s answer in the tool</option>
          <option value="BY_CREDENTIALS">by its credentials</option>
          <option value="BY_PARAMETER">by the launch, which names it</option>
        </select></label
      >
      {#if e.pairing === 'BY_PARAMETER'}
        <label
          >Course of each section <input
            class="entry fig"
            required
            maxlength="400"
            bind:value={e.course}
          /></label
        >
      {/if}
      <label
        >Courses of the tool’s masters, which no section may have
        <input
          class="entry fig"
          value={e.mastersCourses.join(', ')}
          onchange={(x) =>
            (e.mastersCourses = x.currentTarget.value.split(/[\s,]+/).filter(Boolean))}
        /></label
      >
    {/if}
    {#if e.stages.includes('PAIRING') || e.stages.includes('AGREEMENT')}
      <label
        >What the tool says then, {'{course}'} where it names it
        <input class="entry" maxlength="200" bind:value={e.words} /></label
      >
    {/if}
  </fieldset>
  <Served bind:e bind:hosts {courses} />
  <Passes bind:e exchanged={Boolean(connection?.secret && secret)} />
  <Trouble of={trouble} />
  <div class="keep">
    <Act main type="submit">{connection ? 'Keep the changes' : 'Keep this connection'}</Act>
    {#if connection}<button type="button" class="link harm" onclick={end}
        >End {connection.name}</button
      >{/if}
  </div>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
  }
  .line,
  .keep {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  form :global(label) {
    display: grid;
    gap: 2px;
    font-size: 13px;
    color: var(--ink-2);
  }
  form :global(label .entry) {
    color: var(--ink);
    width: 100%;
    max-width: none;
  }
  form :global(label.tick) {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .try,
  .ok,
  .try .harm {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .ok {
    color: var(--do);
  }
  .harm {
    color: var(--harm);
  }
  .try :global(svg) {
    flex: none;
  }
  form :global(fieldset) {
    display: grid;
    gap: 6px;
    border-top: 1px solid var(--line-soft);
    padding-top: 6px;
  }
  form :global(legend) {
    font-size: 13px;
    font-weight: 650;
    padding-right: 6px;
  }
</style>
