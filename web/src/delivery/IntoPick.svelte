<script lang="ts">
  import Choice from './Choice.svelte';
  import type { Order } from './order';
  import { words } from './orderWords';

  /** Where in each shell chosen items go, as a part of the sentence. */
  let { order, say }: { order: Order; say: (change: Partial<Order>) => void } = $props();
  let beside = $derived(order.side === 'BEFORE' || order.side === 'AFTER');
</script>

<Choice
  label="Where it goes"
  words={words.into}
  value={order.into}
  choose={(into) => say({ into, module: '' })}
/>{#if order.into !== 'OWN'}&nbsp;<input
    class="entry word"
    class:short={order.into === 'NTH'}
    aria-label={order.into === 'NTH' ? 'Number of the module' : 'Name of the module'}
    type={order.into === 'NTH' ? 'number' : 'text'}
    min="1"
    max="500"
    placeholder={order.into === 'NTH' ? '5' : 'Week 5'}
    value={order.module}
    onchange={(e) => say({ module: e.currentTarget.value.trim() })}
  />
  <Choice
    label="Where in the module"
    words={words.side}
    value={order.side}
    choose={(side) => say({ side })}
  />{#if beside}&nbsp;<input
      class="entry word"
      aria-label="Title of the item beside it"
      placeholder="Reading"
      value={order.neighbour}
      onchange={(e) => say({ neighbour: e.currentTarget.value.trim() })}
    />{/if}{/if}

<style>
  .word {
    width: 150px;
    height: 28px;
    font-size: 15px;
  }
  .short {
    width: 60px;
  }
</style>
