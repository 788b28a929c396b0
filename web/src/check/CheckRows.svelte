<script lang="ts">
  import { figure, many } from '../marks/words';
  import { name, strokes, weightWords, type Board, type Row } from './checks';

  /** What is found, in the order in which people look; one stroke a section. */
  let {
    board,
    chosen,
    choose,
  }: { board: Board; chosen: Row | undefined; choose: (r: Row) => void } = $props();

  const FEW = 5;
  const WIDTH = 236;
  let open = $state<Record<string, boolean>>({});
  let groups = $derived(
    board.groups.map((g) => ({
      ...g,
      seen: open[g.group] ? g.rows : g.rows.filter((r, n) => n < FEW || r === chosen),
    })),
  );
  let flat = $derived(groups.flatMap((g) => g.seen));
  let looked = $derived(board.sections.filter((s) => s.looked).length);

  function keys(e: KeyboardEvent) {
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    if (!by || !flat.length) return;
    e.preventDefault();
    const at = chosen ? flat.indexOf(chosen) : -1;
    const to = flat[Math.max(0, Math.min(flat.length - 1, at + by))];
    choose(to);
    document.getElementById('row ' + name(to))?.focus();
  }
</script>

<div class="groups">
  {#each groups as g (g.group)}
    <section class="g" aria-label={g.words}>
      <div class="t">
        <h2>{g.words}</h2>
        {#if g.rows.length}<span class="quiet">{figure(g.right)} of {figure(looked)} right</span
          >{/if}
      </div>
      <div>
        {#each g.seen as r (name(r))}
          <button
            class="f"
            class:here={r === chosen}
            id="row {name(r)}"
            aria-pressed={r === chosen}
            title={weightWords[r.weight]}
            onclick={() => choose(r)}
            onkeydown={keys}
          >
            <span class="cut">{r.words}</span>
            <svg
              width={WIDTH}
              height="14"
              class={r.weight}
              role="img"
              aria-label="{many(r.sections.length, 'section')}, {weightWords[r.weight]}"
              ><path d={strokes(r.sections.length, r.weight, WIDTH)} /></svg
            >
            <span class="fig quiet">{figure(r.sections.length)}</span>
            <span class="faint">{r.asked ? `${r.asked} asked` : ''}</span>
          </button>
        {:else}
          <p class="none quiet">{figure(g.right)} of {figure(looked)} right: nothing is found.</p>
        {/each}
        {#if g.rows.length > g.seen.length}
          <button class="link quiet more" onclick={() => (open[g.group] = true)}
            >{g.rows.length - g.seen.length} more</button
          >
        {/if}
      </div>
    </section>
  {/each}
</div>

<style>
  .groups {
    border-top: 1px solid var(--line);
    overflow: auto;
    min-height: 0;
    padding-bottom: 64px;
  }
  .g {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr);
    border-bottom: 1px solid var(--line);
    padding: 6px 14px 6px 0;
    column-gap: 12px;
  }
  .t {
    display: flex;
    flex-direction: column;
    padding-top: 3px;
    font-size: 13px;
  }
  .f {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 236px 44px 62px;
    gap: 10px;
    align-items: center;
    width: 100%;
    min-height: 26px;
    padding: 0 6px;
    font-size: 13.5px;
    text-align: left;
    cursor: pointer;
  }
  .f:hover,
  .f.here {
    background: var(--do-soft);
  }
  .f.here {
    box-shadow: inset 0 0 0 1.5px var(--do);
  }
  .HARM {
    fill: var(--harm);
  }
  .WRONG {
    fill: var(--mind-mark);
  }
  .CAN_WAIT {
    fill: var(--calm);
  }
  .none,
  .more {
    padding: 3px 6px;
    font-size: 13px;
  }
</style>
