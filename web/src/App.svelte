<script lang="ts">
  import Act from './frame/Act.svelte';
  import Bar from './frame/Bar.svelte';
  import Keys from './frame/Keys.svelte';
  import { followLinks, place } from './frame/place.svelte';
  import Trouble from './frame/Trouble.svelte';
  import { session } from './frame/session.svelte';
  import SignIn from './people/SignIn.svelte';
  import { found } from './routes';

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
  let page = $derived(found(place.path, session.coordinates));
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
    {#if page.one}
      {#key page.id}<page.one id={page.id} />{/key}
    {:else}
      <page.page />
    {/if}
  </div>
  <Keys />
{/if}

<style>
  .frame {
    height: 100%;
    display: grid;
    grid-template-rows: 44px minmax(0, 1fr);
    grid-template-columns: minmax(0, 1fr); /* no line of a page makes the window wider */
  }
  .wait {
    padding: 24px;
    color: var(--ink-2);
  }
</style>
