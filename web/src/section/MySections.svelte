<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import HandFrame from '../frame/HandFrame.svelte';
  import Standing from '../marks/Standing.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { many } from '../marks/words';
  import MyOpenings from '../tool/MyOpenings.svelte';

  let sections = $state.raw<Schemas['Section'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  $effect(
    () =>
      void got(api.GET('/api/sections/mine')).then(
        (s) => (sections = s),
        (e) => (trouble = e),
      ),
  );
</script>

<main class="page folio">
  <h1>{sections ? many(sections.length, 'section') + ' of yours' : 'Reading the ledger …'}</h1>
  <Trouble of={trouble} />
  <MyOpenings />
  {#each sections ?? [] as s (s.id)}
    <a class="s" href="/sections/{s.id}">
      <b class="fig">{s.code}</b>
      <span class="cut" title={s.title}>{s.title}</span>
      <span class="quiet cut">{s.campus} · {s.term}</span>
      <span class="m">
        {#each s.masters as m (m.master)}
          <span class="one">
            <Standing share={m.expected ? m.held / m.expected : 1} changed={m.changed > 0} />
            {m.title}, version {m.number}
            <span class="quiet"
              >read <When at={m.readAt} />{m.changed
                ? `, ${many(m.changed, 'item')} changed by you`
                : ''}</span
            >
          </span>
        {:else}{#if !s.arriving.length}<span class="quiet">Nothing was delivered to it yet.</span
            >{/if}{/each}
        {#each s.arriving as a (a.delivery)}
          <span class="one"
            >{a.masterTitle}, version {a.number}, {a.state === 'NOT_YET'
              ? 'is on its way'
              : 'is arriving now'}</span
          >
        {/each}
      </span>
    </a>
  {:else}
    {#if sections}<p class="quiet">
        No section is yours in any term. Ask your coordinator whether the roster names you.
      </p>{/if}
  {/each}
</main>
<HandFrame
  title="What your sections got"
  words="Choose one to see every item, when it came and who sent it."
/>

<style>
  .s {
    display: grid;
    grid-template-columns: 70px minmax(0, 3fr) 150px minmax(0, 4fr);
    gap: 12px;
    padding: 10px 4px;
    border-bottom: 1px solid var(--line);
  }
  .s:hover {
    background: var(--do-soft);
  }
  .m {
    display: grid;
    gap: 2px;
  }
  .one {
    display: flex;
    gap: 6px;
    align-items: center;
  }
</style>
