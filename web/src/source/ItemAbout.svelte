<script lang="ts">
  import type { Schemas } from '../api/client';
  import { many } from '../marks/words';

  /** What is known of an item besides what it shows: one line. */
  let { item }: { item: Schemas['ItemView'] } = $props();
  const ways: Record<string, string> = {
    text: 'typed',
    html: 'written',
    url: 'an address',
    file: 'a file',
  };

  let facts = $derived(
    [
      item.questions !== undefined && many(item.questions, 'question'),
      item.points && `${item.points} ${item.points === '1' ? 'point' : 'points'}`,
      item.attempts && many(item.attempts, 'attempt'),
      item.minutes && many(item.minutes, 'minute'),
      item.handIn?.ways?.length &&
        'handed in as ' + item.handIn.ways.map((w) => ways[w] ?? w).join(', '),
      item.attached.length &&
        item.questions === undefined &&
        many(item.attached.length, 'attachment'),
      item.tool?.vendorName && `a tool of ${item.tool.vendorName}`,
      ...Object.entries(item.parameters).map(([k, v]) => `${k} = ${v}`),
      item.standards.length && 'serves ' + item.standards.map((s) => s.label || s.id).join(', '),
      item.instructorsOnly && 'only for instructors',
    ].filter(Boolean),
  );
</script>

{#if facts.length || item.asks}
  <p class="about quiet">
    {facts.join(' · ')}
    {#if item.asks}<span class="mind">Asks for {item.asks}.</span>{/if}
  </p>
{/if}

<style>
  .about {
    padding: 6px 20px;
    border-bottom: 1px solid var(--line-soft);
    background: var(--paper);
  }
  .mind {
    color: var(--mind);
  }
</style>
