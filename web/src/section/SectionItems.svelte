<script lang="ts">
  import type { Schemas } from '../api/client';
  import When from '../frame/When.svelte';
  import Rows from '../lists/Rows.svelte';
  import StepMark from '../marks/StepMark.svelte';
  import { aspectList, kind } from '../marks/words';

  type Item = Schemas['ItemLine'];
  /** Every item that a section got, with its last receipt. */
  let { items, chosen, choose }: { items: Item[]; chosen?: Item; choose: (item: Item) => void } =
    $props();
</script>

<div class="l top" aria-hidden="true">
  <span></span><span>Item</span><span>Kind</span><span>Master</span><span>Last receipt</span><span
    >By</span
  >
  <span>Changed here</span>
</div>
<Rows rows={items} height={26} role="group" label="Items delivered">
  {#snippet row(i: Item)}
    <button class="l" class:at={i === chosen} onclick={() => choose(i)}>
      <StepMark kind={i.state === 'CHANGED' ? 'KEEP' : i.state === 'GONE' ? 'RETIRE' : 'SAME'} />
      <span class="cut" class:gone={i.state === 'GONE'} class:mod={i.kind === 'MODULE'}
        >{i.title}</span
      >
      <span class="quiet cut">{kind(i.kind)}</span>
      <span class="fig">{i.masterCode} v{i.number}</span>
      <span class="quiet"><When at={i.at} /></span>
      <span class="quiet cut">{i.by}</span>
      <span class="own cut">{i.state === 'GONE' ? 'removed' : aspectList(i.changedHere)}</span>
    </button>
  {/snippet}
</Rows>

<style>
  .l {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) 100px 100px 104px 140px 140px;
    gap: 8px;
    align-items: center;
    height: 26px;
    width: 100%;
    text-align: left;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13px;
    cursor: pointer;
  }
  .l.top {
    color: var(--ink-2);
    cursor: default;
  }
  .l.at {
    background: var(--do-soft);
  }
  .own {
    color: var(--own);
  }
  .mod {
    font-weight: 650;
  }
  .gone {
    text-decoration: line-through;
  }
  @media (max-width: 1180px) {
    .l {
      grid-template-columns: 18px minmax(150px, 1fr) 76px 84px 78px 104px 110px;
    }
  }
  @media (min-width: 1600px) {
    .l {
      grid-template-columns: 18px minmax(0, 3fr) 120px 120px 120px 180px minmax(0, 2fr);
    }
  }
</style>
