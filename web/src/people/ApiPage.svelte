<script lang="ts">
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { calls, type Call, type Description } from './api-description';

  let all = $state.raw<Call[]>([]);
  let words = $state('');
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];

  $effect(() => {
    void fetch('/api/openapi')
      .then((r) => r.json())
      .then((d: Description) => (all = calls(d)))
      .catch((e: unknown) => (trouble = e));
  });
  let found = $derived(
    all.filter((c) => `${c.method} ${c.path}`.toLowerCase().includes(words.toLowerCase())),
  );
</script>

<main class="page folio">
  <div class="folio-head">
    <h1>The API</h1>
    <span class="quiet">
      The same calls that these pages make. The whole description, for programs, is
      <a class="link" href="/api/openapi" download="zephyrmist-openapi.json">OpenAPI</a>.
    </span>
    <input
      class="entry"
      type="search"
      aria-label="Find a call"
      placeholder="Find a call"
      bind:value={words}
    />
  </div>
  <Trouble of={trouble} />
  {#if !all.length && !trouble}<p role="status" class="quiet">Reading the description …</p>{/if}
  <table>
    <thead>
      <tr><th>Call</th><th>Takes</th><th>Answers with</th></tr>
    </thead>
    <tbody>
      {#each found as c (c.method + c.path)}
        <tr>
          <td class="fig"
            ><b>{c.method}</b>
            {#each c.path.slice(1).split('/') as part, i (i)}/{part}<wbr />{/each}</td
          >
          <td class="fig quiet">{c.takes}</td>
          <td class="fig quiet">{c.gives}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</main>
<HandFrame title="The API" words="Send a token of yours with each call: Authorization: Bearer …" />

<style>
  .entry {
    margin-left: auto;
    width: 220px;
  }
  table {
    width: 100%;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  th,
  td {
    padding: 4px 16px 4px 0;
    vertical-align: top;
    border-bottom: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
</style>
