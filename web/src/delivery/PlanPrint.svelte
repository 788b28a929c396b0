<script lang="ts">
  import { api, counted, got, type Schemas, type StepKind } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { many, reasons, stepWords } from '../marks/words';
  import { exceptions } from './plan';

  /** A plan on paper: what happens in each section, and every step that is out of the ordinary. */
  let { id }: { id: string } = $props();
  let detail = $state.raw<Schemas['DeliveryDetail'] | null>(null);
  let plan = $state.raw<Schemas['DeliveryPlan'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  keyList.of = [];
  $effect(() => {
    const params = { path: { id } };
    void Promise.all([
      got(api.GET('/api/deliveries/{id}', { params })),
      got(api.GET('/api/deliveries/{id}/plan', { params })),
    ]).then(
      ([d, p]) => ([detail, plan] = [d, p]),
      (e) => (trouble = e),
    );
  });
  let odd = $derived(detail && plan ? exceptions(plan, detail.lines) : []);
  const kinds: StepKind[] = ['ADD', 'UPDATE', 'KEEP', 'CLASH', 'TWIN', 'RETIRE', 'BLOCKED'];
  const count = (l: Schemas['DeliveryLine'], k: StepKind) =>
    new Map(counted<StepKind>(l.counts)).get(k) ?? '';
</script>

<main class="page folio">
  <Trouble of={trouble} />
  {#if detail && plan}
    <h1>
      {detail.delivery.masterCode}, version {detail.delivery.number}: plan for {many(
        detail.lines.length,
        'section',
      )}
    </h1>
    <p class="quiet">
      Made by {detail.delivery.madeBy}, {detail.delivery.madeAt.slice(0, 16).replace('T', ' ')} UTC. What
      students left is never removed; where a step would change what counts for it, the plan waits for
      a person.
    </p>
    <table>
      <thead>
        <tr>
          <th>Section</th><th>Campus</th><th>Instructors</th>
          {#each kinds as k (k)}<th class="n">{stepWords[k][1]}</th>{/each}
        </tr>
      </thead>
      <tbody>
        {#each detail.lines as l (l.id)}
          <tr>
            <td class="fig">{l.code}</td>
            <td>{l.campus}</td>
            <td>{l.instructors}</td>
            {#each kinds as k (k)}<td class="n fig">{count(l, k)}</td>{/each}
          </tr>
        {/each}
      </tbody>
    </table>
    {#if odd.length}
      <h2>To be looked at</h2>
      <table>
        <tbody>
          {#each odd as o (o.title + o.kind + o.reason)}
            <tr>
              <td>{o.title}</td>
              <td>{stepWords[o.kind][0]}: {reasons[o.reason]}</td>
              <td class="fig">{o.codes.join(', ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  {:else if !trouble}<h1>Opening the plan …</h1>{/if}
</main>
<HandFrame title="A page for paper">
  <a class="link" href="/deliveries/{id}?look=plan">Back to the plan</a>
  <Act main onclick={() => window.print()}>Print</Act>
</HandFrame>

<style>
  .page {
    overflow: auto;
  }
  h2 {
    margin: 18px 0 4px;
  }
  table {
    border-collapse: collapse;
    font-size: 13px;
    margin-top: 10px;
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
  }
  th,
  td {
    padding: 2px 10px 2px 0;
    border-bottom: 1px solid var(--line-soft);
    vertical-align: top;
  }
  .n {
    text-align: right;
  }
  tr {
    break-inside: avoid;
  }
</style>
