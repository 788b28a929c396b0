<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';

  /** Hosts whose frames a cartridge shows, with how many, and whether they are approved. */
  let { hosts }: { hosts: Record<string, number> } = $props();
  let lines = $derived(Object.entries(hosts).sort((a, b) => b[1] - a[1]));
  let approved = $state.raw<Schemas['Approved'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let decides = $derived(session.me?.role === 'ADMINISTRATOR');
  const of = (host: string) => approved.find((a) => a.host === host);

  async function load() {
    try {
      approved = await got(api.GET('/api/frames'));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void (lines.length && load()));

  async function decide(host: string) {
    const params = { path: { host } };
    try {
      await got(
        of(host)
          ? api.DELETE('/api/frames/{host}', { params })
          : api.PUT('/api/frames/{host}', { params }),
      );
      trouble = null;
      await load();
    } catch (e) {
      trouble = e;
    }
  }
</script>

{#if !lines.length}None.{/if}
<ul>
  {#each lines as [host, n] (host)}
    <li>
      <span class="fig">{host}</span>
      <span class="quiet">
        {many(n, 'frame')}, {of(host)
          ? `shown; approved by ${of(host)!.by}`
          : 'plain links until an administrator approves the host'}
      </span>
      {#if decides}
        <span class="can">
          <Act title={host} onclick={() => decide(host)}>{of(host) ? 'Withdraw' : 'Approve'}</Act>
        </span>
      {/if}
    </li>
  {/each}
</ul>
<Trouble of={trouble} />

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    align-items: center;
    padding-bottom: 4px;
  }
  .can {
    grid-row: 1 / 3;
    grid-column: 2;
  }
  li .quiet {
    grid-row: 2;
  }
</style>
