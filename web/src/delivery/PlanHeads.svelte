<script lang="ts">
  import type { Schemas } from '../api/client';
  import type { Picture, Sight } from './plan';

  /** The sections over the columns of a plan. */
  let {
    pic,
    plan,
    byId,
    sight,
    width,
    title,
  }: {
    pic: Picture;
    plan: Schemas['DeliveryPlan'];
    byId: ReadonlyMap<string, Schemas['DeliveryLine']>;
    sight: Sight;
    /** Of a column, in pixels. */
    width: number;
    /** Width of the titles of the rows. */
    title: number;
  } = $props();
</script>

<div class="heads" role="row">
  <span class="corner" role="columnheader" style="width:{title}px">
    {#if pic.idle}<span class="faint"
        >{pic.idle}
        {pic.idle === 1 ? 'section' : 'sections'} with nothing to do, not drawn</span
      >{/if}
  </span>
  {#each pic.columns.slice(sight.fromCol, sight.toCol) as line, i (line)}
    {@const l = byId.get(plan.lines[line])}
    <span
      class="c fig"
      role="columnheader"
      style="left:{title + (sight.fromCol + i) * width}px;width:{width}px"
      title="{l?.code} · {l?.campus} · {l?.instructors}"><span>{l?.code}</span></span
    >
  {/each}
</div>

<style>
  .heads {
    position: sticky;
    top: 0;
    height: 62px;
    background: var(--ground);
    border-bottom: 1px solid var(--line);
    z-index: 3;
  }
  .corner {
    position: sticky;
    left: 0;
    display: flex;
    align-items: end;
    height: 61px;
    background: var(--ground);
    z-index: 4;
    padding: 0 8px 4px 0;
    font-size: 12px;
    line-height: 15px;
  }
  .c {
    position: absolute;
    bottom: 4px;
    display: flex;
    justify-content: center;
    color: var(--ink-2);
  }
  .c span {
    writing-mode: vertical-rl;
    transform: rotate(180deg);
    font-size: 12px;
  }
</style>
