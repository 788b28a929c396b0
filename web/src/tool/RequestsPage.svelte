<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';

  /** Hosts that somebody asked for: those to be decided first. */
  let all = $state.raw<Schemas['RequestView'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let conditions = $state<Record<string, string>>({});
  let admin = $derived(session.me?.role === 'ADMINISTRATOR');
  let open = $derived(all?.filter((r) => r.approved === undefined) ?? []);
  let decided = $derived(all?.filter((r) => r.approved !== undefined) ?? []);

  async function load() {
    try {
      all = await got(api.GET('/api/tools/requests'));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function decide(r: Schemas['RequestView'], approved: boolean) {
    try {
      await got(
        api.PUT('/api/tools/requests/{request}', {
          params: { path: { request: r.id } },
          body: { approved, conditions: conditions[r.id] ?? '' },
        }),
      );
      await load();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<main>
  <p><a class="link" href="/tools">Tools</a></p>
  <h1>
    {all === null
      ? 'Reading requests …'
      : open.length
        ? `${open.length} ${open.length === 1 ? 'host waits' : 'hosts wait'} for a decision`
        : 'No host waits for a decision'}
  </h1>
  <Trouble of={trouble} />
  {#each open as r (r.id)}
    <section>
      <h2 class="fig">{r.host}</h2>
      <p>{r.reason}</p>
      <p class="quiet">{r.askedBy}, <When at={r.askedAt} /></p>
      {#if admin}
        <div class="line">
          <input
            class="entry"
            aria-label="Conditions for {r.host}"
            placeholder="Conditions, or why not"
            maxlength="2000"
            bind:value={conditions[r.id]}
          />
          <Act main onclick={() => decide(r, true)}>Approve {r.host}</Act>
          <Act onclick={() => decide(r, false)}>Decline</Act>
        </div>
      {:else}<p class="quiet">An administrator decides.</p>{/if}
    </section>
  {/each}
  {#if decided.length}
    <h2>Decided</h2>
    <ul>
      {#each decided as r (r.id)}
        <li>
          <span class="fig">{r.host}</span>
          {r.approved ? 'approved' : 'declined'} by {r.decidedBy}, <When at={r.decidedAt!} />
          {#if r.conditions}<span class="quiet">“{r.conditions}”</span>{/if}
        </li>
      {/each}
    </ul>
  {:else if all && !open.length}
    <p class="quiet">
      Whoever needs a tool asks for its host on the page of <a class="link" href="/tools">Tools</a>;
      what is asked for stands here until an administrator has decided.
    </p>
  {/if}
</main>

<style>
  main {
    padding: 12px 16px;
    overflow: auto;
    max-width: 900px;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  section {
    border-top: 1px solid var(--line);
    padding-top: 8px;
    display: grid;
    gap: 4px;
  }
  .line {
    display: flex;
    gap: 8px;
  }
  .line input {
    flex: 1;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--line-soft);
  }
</style>
