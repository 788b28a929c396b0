<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';

  /** An address at which a calendar program finds what is due. */
  let { term, course, section }: { term: string; course?: string; section?: string } = $props();
  let open = $state(false);
  let made = $state('');
  let mine = $state.raw<Schemas['CalendarAddress'][]>([]);
  let trouble = $state.raw<unknown>(null);

  async function load() {
    try {
      mine = await got(api.GET('/api/calendars/due/addresses'));
    } catch (e) {
      trouble = e;
    }
  }
  async function make() {
    try {
      const body = { term, course, section };
      const { path } = await got(api.POST('/api/calendars/due/addresses', { body }));
      made = location.origin + path;
      trouble = null;
    } catch (e) {
      trouble = e;
    }
    await load();
  }
  async function end(address: string) {
    try {
      const params = { path: { address } };
      await got(api.DELETE('/api/calendars/due/addresses/{address}', { params }));
      made = '';
    } catch (e) {
      trouble = e;
    }
    await load();
  }
</script>

{#if !open}
  <button class="link tall" onclick={() => ((open = true), void load())}
    >an address to subscribe to</button
  >
{:else}
  <div class="addresses">
    {#if made}
      <label
        >Shown this once <input
          class="entry"
          readonly
          value={made}
          onfocus={(e) => e.currentTarget.select()}
        /></label
      >
      <p class="quiet">
        Whoever has it sees what you may see there, as it is then. End it if it gets about.
      </p>
    {:else}
      <Act onclick={make}
        >Make an address for {section ? 'this section' : (course ?? 'all sections')}</Act
      >
    {/if}
    <ul>
      {#each mine as a (a.id)}
        <li>
          <span>{a.about}</span>
          <span class="quiet"
            >{#if a.usedAt}used <When at={a.usedAt} />{:else}not used yet{/if}</span
          >
          <button class="link" aria-label="End the address of {a.about}" onclick={() => end(a.id)}
            >End it</button
          >
        </li>
      {/each}
    </ul>
    <Trouble of={trouble} />
  </div>
{/if}

<style>
  .tall {
    min-height: 24px;
  }
  .addresses {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  label {
    display: grid;
    gap: 2px;
    width: 100%;
    font-size: 13px;
  }
  li {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
  }
</style>
