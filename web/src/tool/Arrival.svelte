<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Tie from '../marks/Tie.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { reasonWords, standingWords, tieOf } from './tools';

  /** What of a delivery's tool links will work when it arrives, and what waits for whom. */
  let { delivery }: { delivery: string } = $props();
  let arriving = $state.raw<Schemas['ArrivingTools'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  $effect(
    () =>
      void got(api.GET('/api/tools/arrival/{delivery}', { params: { path: { delivery } } })).then(
        (a) => (arriving = a),
        (e) => (trouble = e),
      ),
  );
</script>

<Trouble of={trouble} />
{#if arriving?.tools.length}
  <div class="all" role="group" aria-label="Tools on arrival">
    <span class="quiet">Tools on arrival</span>
    {#each arriving.tools as t (t.host)}
      <span class="tool">
        <a class="link" href="/tools?host={t.host}">{t.name}</a>
        {#each t.states as s (s.reason)}
          <span class="state" title={reasonWords[s.reason]}
            ><Tie kind={tieOf[s.standing]} size={15} /><b class="fig">{s.sections}</b>
            {standingWords[s.standing]}</span
          >
        {/each}
      </span>
    {/each}
  </div>
{/if}

<style>
  .all {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    font-size: 13px;
  }
  .tool,
  .state {
    display: flex;
    gap: 6px;
    align-items: center;
  }
</style>
