<script lang="ts">
  import Act from './lib/Act.svelte';
  import Bar from './lib/Bar.svelte';
  import Keys from './lib/Keys.svelte';
  import { followLinks, place } from './lib/place.svelte';
  import Trouble from './lib/Trouble.svelte';
  import { session } from './lib/session.svelte';
  import SignIn from './people/SignIn.svelte';
  import Coverage from './coverage/Coverage.svelte';
  import Sources from './source/Sources.svelte';
  import EditionPage from './source/EditionPage.svelte';
  import MasterPage from './source/MasterPage.svelte';
  import Deliveries from './delivery/Deliveries.svelte';
  import DeliveryPage from './delivery/DeliveryPage.svelte';
  import SectionPage from './section/SectionPage.svelte';
  import MySections from './section/MySections.svelte';
  import College from './college/College.svelte';
  import Myself from './people/Myself.svelte';
  import ApiPage from './people/ApiPage.svelte';
  import Record from './people/Record.svelte';

  const AGAIN = 5_000;
  let trouble = $state.raw<unknown>(null);
  let again: ReturnType<typeof setTimeout>;

  /** Tried again until the server answers, so that a page left open comes back by itself. */
  async function open() {
    clearTimeout(again);
    try {
      await session.load();
      trouble = null;
    } catch (e) {
      trouble = e;
      again = setTimeout(open, AGAIN);
    }
  }
  void open();
  let edition = $derived(place.after('/sources/editions/'));
  let master = $derived(place.after('/sources/masters/'));
  let delivery = $derived(place.after('/deliveries/'));
  let section = $derived(place.after('/sections/'));
</script>

<svelte:document onclick={followLinks} />

{#if !session.known}
  <div class="wait">
    {#if trouble}
      <Trouble of={trouble} />
      <p>This page tries again by itself. <Act onclick={open}>Try again now</Act></p>
    {:else}<p role="status">Opening Zephyrmist …</p>{/if}
  </div>
{:else if !session.me}
  <SignIn />
{:else}
  <div class="frame">
    <Bar />
    {#if place.path.startsWith('/myself')}
      <Myself />
    {:else if place.path.startsWith('/api-description')}
      <ApiPage />
    {:else if section}
      {#key section}<SectionPage id={section} />{/key}
    {:else if !session.coordinates}
      <MySections />
    {:else if edition}
      {#key edition}<EditionPage id={edition} />{/key}
    {:else if master}
      {#key master}<MasterPage id={master} />{/key}
    {:else if place.path.startsWith('/sources')}
      <Sources />
    {:else if delivery}
      {#key delivery}<DeliveryPage id={delivery} />{/key}
    {:else if place.path.startsWith('/deliveries')}
      <Deliveries />
    {:else if place.path.startsWith('/college')}
      <College />
    {:else if place.path.startsWith('/record')}
      <Record />
    {:else}
      <Coverage />
    {/if}
  </div>
  <Keys />
{/if}

<style>
  .frame {
    height: 100%;
    display: grid;
    grid-template-rows: 44px minmax(0, 1fr);
  }
  .wait {
    padding: 24px;
    color: var(--ink-2);
  }
</style>
