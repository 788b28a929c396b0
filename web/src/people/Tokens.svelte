<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';

  type Scope = Schemas['NewToken']['scopes'][number];
  const offered: [Scope, string][] = [
    ['READ', 'look at what you may see'],
    ['SOURCES', 'take in, edit, freeze'],
    ['DELIVER', 'plan and run deliveries'],
    ['COLLEGE', 'rosters, platforms'],
  ];
  let tokens = $state.raw<Schemas['TokenView'][] | null>(null);
  let name = $state('');
  let days = $state(90);
  let scopes = $state<Scope[]>(['READ']);
  let made = $state('');
  let trouble = $state.raw<unknown>(null);

  async function load() {
    try {
      tokens = await got(api.GET('/api/me/tokens'));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function make(e: SubmitEvent) {
    e.preventDefault();
    try {
      made = (await got(api.POST('/api/me/tokens', { body: { name, scopes, days } }))).token;
      name = '';
      trouble = null;
      await load();
    } catch (x) {
      trouble = x;
    }
  }

  async function end(id: string) {
    try {
      await got(api.DELETE('/api/me/tokens/{id}', { params: { path: { id } } }));
      await load();
    } catch (x) {
      trouble = x;
    }
  }

  const words = (s: string) => offered.find(([scope]) => scope === s)?.[1] ?? s;
  const day = (at: string) =>
    new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
  const over = (t: Schemas['TokenView']) => Date.parse(t.expiresAt) < Date.now();
</script>

<section>
  <h2>Tokens for scripts</h2>
  <p class="quiet">
    A script signs in with a token instead of your password and can do no more than you. What it can
    call stands in the <a class="link" href="/api-description">description of the API</a>.
  </p>
  {#if made}
    <div class="made" role="status">
      <p><b>This is the only time it is shown.</b> Copy it to where your script reads it.</p>
      <code class="fig">{made}</code>
      <Act onclick={() => (made = '')}>I have it</Act>
    </div>
  {/if}
  {#if tokens?.length}
    <table>
      <thead>
        <tr><th>Token</th><th>May</th><th>Ends</th><th>Last used</th><th></th></tr>
      </thead>
      <tbody>
        {#each tokens as t (t.id)}
          <tr>
            <td>{t.name}</td>
            <td>{t.scopes.map(words).join('; ')}</td>
            <td class:over={over(t)}>{over(t) ? 'ended ' : ''}{day(t.expiresAt)}</td>
            <td
              >{#if t.usedAt}<When at={t.usedAt} />{:else}<span class="faint">never</span>{/if}</td
            >
            <td>
              <button type="button" class="link" onclick={() => void end(t.id)}>
                End<span class="sr-only"> {t.name}</span>
              </button>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else if tokens}
    <p class="quiet">You have none.</p>
  {/if}
  <form onsubmit={make}>
    <label>
      <span class="words">What it is for</span>
      <input class="entry" maxlength="100" bind:value={name} required />
    </label>
    <label>
      <span class="words">It ends after</span>
      <select class="entry" bind:value={days}>
        <option value={30}>30 days</option>
        <option value={90}>90 days</option>
        <option value={365}>a year</option>
      </select>
    </label>
    <fieldset>
      <legend class="words">It may</legend>
      {#each offered as [scope, what] (scope)}
        <label class="tick">
          <input type="checkbox" value={scope} bind:group={scopes} />
          {what}
        </label>
      {/each}
    </fieldset>
    <Act type="submit" disabled={!scopes.length}>Make a token</Act>
  </form>
  <Trouble of={trouble} />
</section>

<style>
  section {
    display: grid;
    gap: 8px;
  }
  form,
  fieldset {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 12px;
  }
  fieldset {
    align-items: center;
    min-height: 30px;
  }
  .words {
    display: block;
  }
  .tick {
    display: flex;
    align-items: center;
    gap: 5px;
  }
  .made {
    padding: 8px 12px;
    border-left: 3px solid var(--mind-mark);
    background: var(--mind-soft);
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 14px;
  }
  .made p {
    flex-basis: 100%;
  }
  code {
    overflow-wrap: anywhere;
    user-select: all;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  th,
  td {
    padding: 3px 16px 3px 0;
    border-bottom: 1px solid var(--line);
  }
  .over {
    color: var(--mind);
  }
</style>
