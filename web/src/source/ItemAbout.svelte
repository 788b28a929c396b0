<script lang="ts">
  import type { Schemas } from '../api/client';
  import { many } from '../marks/words';
  import type { Node } from './tree';

  /** What is known of an item besides what it shows: one line. */
  let { item, nodes = [] }: { item: Schemas['ItemView']; nodes?: Node[] } = $props();
  const title = (key: string | undefined) =>
    nodes.find((n) => n.key === key)?.title ?? 'an item that is not here';
  const waits = (c: Schemas['Waits']) =>
    ({
      READ: () => `“${title(c.item)}” was opened`,
      HANDED_IN: () => `“${title(c.item)}” was handed in`,
      SCORE: () => `“${title(c.item)}” was graded with ${c.percent} % or more`,
      DAY: () => `it is ${c.from?.replace('T', ', ')}`,
    })[c.what]();
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
      item.weight && `${item.weight} percent of the grade`,
      item.category && nodes.length && `counts into ${title(item.category)}`,
      item.rubric && nodes.length && `graded by ${title(item.rubric)}`,
      item.groupSet && nodes.length && `done by groups of ${title(item.groupSet)}`,
      item.lasting && 'for one term only',
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
      item.conditions.length && 'opens when ' + item.conditions.map(waits).join(' and '),
      item.own?.goesWith.length && 'goes with ' + item.own.goesWith.map((k) => title(k)).join(', '),
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
