<script lang="ts">
  import { moving, type Row } from './plan';

  /** A row of a plan, without its marks. */
  let {
    row,
    index,
    top,
    columns,
    width,
    title,
    cursor,
    at,
    open,
    toggle,
  }: {
    row: Row;
    index: number;
    top: number;
    columns: number;
    /** Of a column, in pixels. */
    width: number;
    title: number;
    /** The cell that the keys are at, if it is in this row. */
    cursor?: { col: number; name: string };
    /** The column of the step that is looked at, if it is of this row; -1 if it is not drawn. */
    at?: number;
    open: boolean;
    toggle: () => void;
  } = $props();
</script>

<div class="row {row.type}" role="row" aria-rowindex={index + 1} style="top:{top}px">
  <span
    id={cursor && row.type !== 'item' ? 'plan-at' : undefined}
    class="i cut"
    role="rowheader"
    style="width:{title}px"
    class:on={at !== undefined}
  >
    {#if row.type === 'fold' && row.key}
      <button tabindex="-1" onclick={toggle}>{open ? '▾' : '▸'} {row.title}</button>
    {:else}{row.title}{/if}
  </span>
  {#if row.type !== 'module'}
    <span
      class="ruled"
      style="left:{title}px;width:{columns * width}px;background-size:{width}px 100%"
    ></span>
  {/if}
  {#if row.type === 'item'}
    {#if cursor}
      <span
        id="plan-at"
        class="s cursor"
        role="gridcell"
        aria-colindex={cursor.col + 1}
        aria-label={cursor.name}
        style="left:{title + cursor.col * width}px;width:{width}px"
      ></span>
    {/if}
    {#if at !== undefined && at >= 0}
      <span class="s at" style="left:{title + at * width}px;width:{width}px"></span>
    {/if}
    <span class="n fig" style="left:{title + columns * width}px">{moving(row.cells) || ''}</span>
  {/if}
</div>

<style>
  .row {
    position: absolute;
    left: 0;
    right: 0;
    height: 23px;
  }
  .i {
    position: sticky;
    left: 0;
    display: inline-block;
    height: 23px;
    line-height: 23px;
    padding: 0 8px 0 11px;
    background: var(--ground);
    z-index: 2;
  }
  .module {
    border-top: 1px solid var(--line);
    background: var(--paper);
  }
  .module .i {
    font-weight: 650;
    padding-left: 0;
    background: var(--paper);
  }
  .fold .i {
    color: var(--ink-3);
  }
  .fold button {
    cursor: pointer;
  }
  .i.on {
    background: var(--do-soft);
  }
  .s {
    position: absolute;
    top: 0;
    height: 23px;
  }
  .ruled {
    position: absolute;
    top: 0;
    bottom: 0;
    background-image: linear-gradient(to right, var(--line-soft) 1px, transparent 1px);
  }
  .s.at {
    outline: 2px solid var(--do);
    outline-offset: -2px;
    background: var(--do-soft);
  }
  :global(.plan:focus-visible) .s.cursor {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .n {
    position: absolute;
    width: 44px;
    text-align: right;
    line-height: 23px;
    color: var(--ink-2);
  }
</style>
