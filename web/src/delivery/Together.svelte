<script lang="ts">
  import type { Schemas } from '../api/client';

  /** The deliveries of one order, one after the other in each section. */
  let { detail }: { detail: Schemas['DeliveryDetail'] } = $props();
  type One = Schemas['DeliverySummary'];
  const all = (d: One) => Object.values(d.lines).reduce((a, b) => a + b, 0);
  function says(d: One): string {
    const done = d.lines.DONE ?? 0;
    const need = d.lines.NEEDS_PERSON ?? 0;
    if (d.state === 'PLANNING') return `planning, ${all(d) - (d.lines.TO_PLAN ?? 0)} of ${all(d)}`;
    if (!d.confirmedAt) return 'planned';
    return `${done} of ${all(d)} done${need ? `, ${need} need you` : ''}`;
  }
</script>

{#if detail.together.length}
  <nav class="order" aria-label="One order">
    {#each detail.together as d, i (d.id)}
      {#if i}<span class="faint" aria-hidden="true">then</span>{/if}
      <a class="tab" href="/deliveries/{d.id}" aria-current={d.id === detail.delivery.id && 'page'}>
        <b class="fig">{d.masterCode}</b> v{d.number} <span class="quiet">{says(d)}</span>
      </a>
    {/each}
  </nav>
{/if}

<style>
  .order {
    display: flex;
    gap: 4px 12px;
    align-items: baseline;
    flex-wrap: wrap;
    padding: 4px 0 2px;
    font-size: 13.5px;
  }
  .tab[aria-current='page'] {
    border-bottom-color: var(--do);
    color: var(--ink);
  }
</style>
