<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';

  /** The text of an item in two versions, block beside block; 0 is the draft. */
  let {
    id,
    key,
    from,
    to,
    stamp = 0,
  }: { id: string; key: string; from: number; to: number; stamp?: number } = $props();
  let text = $state.raw<Schemas['TextView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let source = $state(false);

  $effect(() => {
    const params = { path: { id, key }, query: { from, to } };
    void stamp;
    void got(api.GET('/api/masters/{id}/changes/{key}', { params })).then(
      (t) => ((text = t), (trouble = null)),
      (e) => ((trouble = e), (text = null)),
    );
  });
  const name = (n: number) => (n ? 'version ' + n : 'the draft');
  let differ = $derived(text?.blocks.filter((b) => !b.same).length ?? 0);
</script>

{#snippet runs(block: Schemas['BlockView'] | undefined, mark: 'gone' | 'new')}
  <p class:fig={source}>
    {#each (source ? block?.source : block?.words) ?? [] as r, i (i)}{#if r.only}<mark class={mark}
          >{r.text}</mark
        >{:else}{r.text}{/if}{/each}
  </p>
{/snippet}

<section>
  <div class="head">
    <span class="quiet"
      >{!text
        ? 'Comparing …'
        : differ
          ? `${differ} of ${text.blocks.length} blocks of the text differ`
          : 'The text is the same in both.'}</span
    >
    <span class="ways" role="group" aria-label="How it is shown">
      <button class="tab" aria-pressed={!source} onclick={() => (source = false)}>Text</button>
      <button class="tab" aria-pressed={source} onclick={() => (source = true)}>Source</button>
    </span>
  </div>
  <Trouble of={trouble} />
  {#if text?.blocks.length}
    <div class="two">
      <h2>In {name(from)}</h2>
      <h2>In {name(to)}</h2>
      {#each text.blocks as b, i (i)}
        <div class:changed={!b.same}>{@render runs(b.before, 'gone')}</div>
        <div class:changed={!b.same}>{@render runs(b.after, 'new')}</div>
      {/each}
    </div>
  {/if}
</section>

<style>
  section {
    padding: 10px 20px;
    overflow: auto;
    min-height: 0;
    background: var(--raise);
  }
  .head {
    display: flex;
    gap: 12px;
    align-items: center;
    padding-bottom: 8px;
  }
  .ways {
    margin-left: auto;
    display: flex;
    gap: 12px;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 2px 20px;
  }
  .two > div {
    padding: 3px 8px;
    border-left: 3px solid transparent;
    overflow-wrap: anywhere;
    color: var(--ink-2);
  }
  .two > .changed {
    border-left-color: var(--own);
    color: var(--ink);
  }
  mark.gone {
    background: var(--mind-soft);
    color: inherit;
    text-decoration: line-through;
  }
  mark.new {
    background: var(--do-soft);
    color: inherit;
  }
</style>
