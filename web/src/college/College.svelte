<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { session } from '../frame/session.svelte';
  import Advice from './Advice.svelte';
  import CollegeValues from './CollegeValues.svelte';
  import People from './People.svelte';
  import OtherShells from './OtherShells.svelte';
  import Platforms from './Platforms.svelte';
  import SecondWord from './SecondWord.svelte';
  import Roster from './Roster.svelte';

  let platforms = $state.raw<Schemas['PlatformList'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  let admin = $derived(session.me?.role === 'ADMINISTRATOR');

  async function load() {
    try {
      platforms = await got(api.GET('/api/platforms'));
      await session.loadTerms();
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());
</script>

<main class="page folio">
  <h1>The college</h1>
  <Trouble of={trouble} />
  <Roster {load} />
  <section>
    <h2>Platforms that hold the shells</h2>
    {#if platforms}<Platforms {platforms} {admin} {load} />{/if}
  </section>
  {#if platforms?.platforms.length}
    <section>
      <h2>Shells to try in, and shared ones</h2>
      <OtherShells platforms={platforms.platforms} />
    </section>
    <section>
      <h2>What we advise for packages</h2>
      <Advice />
    </section>
  {/if}
  <section>
    <h2>Values that texts fill in</h2>
    <CollegeValues />
  </section>
  <section>
    <h2>Deliveries that need a second person’s word</h2>
    <SecondWord {admin} />
  </section>
  {#if admin}
    <section>
      <h2>People</h2>
      <People />
    </section>
  {/if}
</main>
<HandFrame
  title="The college"
  words="Where sections come from, where their shells are, who works with them."
/>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 18px;
    align-content: start;
    max-width: 980px;
  }
  section {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
  }
</style>
