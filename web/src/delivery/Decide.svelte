<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import Whose from '../marks/Whose.svelte';
  import { many } from '../marks/words';

  /** A clash or a twin, decided here, where the same is to be decided, or in all sections. */
  let {
    delivery,
    line,
    item,
    number,
    sides,
    changed,
  }: {
    delivery: string;
    line: string;
    item: string;
    /** Of the version that is delivered. */
    number: number;
    sides: Schemas['StepSides'];
    changed: () => void;
  } = $props();
  type Take = NonNullable<Schemas['StepDecision']['take']>;
  let open = $derived(sides.decide!);
  let twin = $derived(sides.kind === 'TWIN');
  /** Students left something on it, and the step would remove it or change its grading. */
  let work = $derived(
    sides.reason === 'STUDENT_WORK' ||
      sides.reason === 'HIDDEN_INSTEAD' ||
      sides.reason === 'LEFT_WITH_WORK' ||
      open.take === 'CHANGE_GRADING' ||
      (open.take === 'LEAVE' && sides.kind !== 'TWIN'),
  );
  let removal = $derived(!sides.version);
  /** Both changed it at different places, so nobody need decide. */
  let merged = $derived(sides.reason === 'MERGED');
  let editing = $state(false);
  let text = $state('');
  let everywhere = $state(false);
  let busy = $state(false);
  let trouble = $state.raw<unknown>(null);

  const said: Record<Take, string> = {
    SECTION: 'the section’s stays',
    VERSION: 'the version’s is written',
    TOGETHER: 'both are taken',
    ADOPT: 'it is adopted',
    ADD: 'ours is added beside it',
    LEAVE: 'it is left alone',
    CHANGE_GRADING: 'its grading changes all the same',
    HIDE: 'it is hidden instead',
  };

  async function decide(take?: Take) {
    busy = true;
    try {
      const path = { id: delivery, line, key: item };
      const html = take === 'TOGETHER' && editing ? text : undefined;
      await got(
        api.PUT('/api/deliveries/{id}/lines/{line}/steps/{key}/decision', {
          params: { path },
          body: { take, html, everywhere: everywhere && !editing },
        }),
      );
      editing = false;
      trouble = null;
      changed();
    } catch (e) {
      trouble = e;
    }
    busy = false;
  }
</script>

{#if open.together}
  <section class="together">
    <h3>
      Together
      <button
        type="button"
        class="link"
        onclick={() => {
          text = open.html ?? '';
          editing = !editing;
        }}>{editing ? 'close' : 'edit'}</button
      >
    </h3>
    {#if editing}
      <textarea class="entry" rows="7" aria-label="The text of both" bind:value={text}></textarea>
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <p class="text" tabindex="0">
        <Whose runs={open.together} />
      </p>
      {#if !open.clean}
        <p class="mind">Both changed the same words: both stand here. Edit what should stay.</p>
      {/if}
    {/if}
  </section>
{/if}
<div class="foot">
  {#if open.all > 1 && editing}
    <p class="quiet">
      A text written here counts for {open.alike > 1
        ? `${open.alike} sections with the same ${merged ? 'changes' : 'clash'}`
        : 'this section'}.
    </p>
  {:else if open.all > 1}
    <label class="scope">
      <span class="quiet">Decide for</span>
      <select
        class="entry"
        aria-label="Decide for"
        value={everywhere ? 'all' : 'alike'}
        onchange={(e) => (everywhere = e.currentTarget.value === 'all')}
      >
        <option value="alike"
          >{open.alike > 1
            ? `${open.alike} sections with the same ${twin ? 'twin' : work ? 'question' : 'clash'}`
            : 'this section'}</option
        >
        <option value="all"
          >all {many(open.all, 'section')} where {twin
            ? 'it has a twin'
            : work
              ? 'students left something on it'
              : 'both changed it, each with its own words'}</option
        >
      </select>
    </label>
  {/if}
  <div class="acts">
    {#if work}
      <Act main={open.take === 'LEAVE'} disabled={busy} onclick={() => decide('LEAVE')}
        >Leave it</Act
      >
      {#if removal}
        <Act main={open.take === 'HIDE'} disabled={busy} onclick={() => decide('HIDE')}
          >Hide it instead</Act
        >
      {:else}
        <Act
          main={open.take === 'CHANGE_GRADING'}
          disabled={busy}
          onclick={() => decide('CHANGE_GRADING')}>Change the grading all the same</Act
        >
      {/if}
    {:else if twin}
      <Act main={open.take === 'ADOPT'} disabled={busy} onclick={() => decide('ADOPT')}
        >Adopt it</Act
      >
      <Act main={open.take === 'ADD'} disabled={busy} onclick={() => decide('ADD')}
        >Add ours beside</Act
      >
      <Act main={open.take === 'LEAVE'} disabled={busy} onclick={() => decide('LEAVE')}
        >Leave it</Act
      >
    {:else}
      {#if open.together && (editing || !merged || open.take)}
        <Act
          main={!open.take || open.take === 'TOGETHER'}
          disabled={busy}
          onclick={() => decide('TOGETHER')}>Take both</Act
        >
      {/if}
      <Act main={open.take === 'VERSION'} disabled={busy} onclick={() => decide('VERSION')}
        >Version {number}’s</Act
      >
      <Act main={open.take === 'SECTION'} disabled={busy} onclick={() => decide('SECTION')}
        >Section’s</Act
      >
    {/if}
  </div>
  {#if work && !removal}
    <p class="quiet">
      What students left stays. Grades that were given keep their number; what they count for
      changes with the points, the category or the rubric.
    </p>
  {/if}
  {#if open.take}
    <p class="quiet">
      Decided: {said[open.take]}.
      <button type="button" class="link" disabled={busy} onclick={() => decide()}
        >Take it back{open.all > 1 ? ' in all sections' : ''}</button
      >
    </p>
  {/if}
  <Trouble of={trouble} />
</div>

<style>
  .together {
    background: var(--raise);
    border: 1px solid var(--do);
    border-radius: var(--r);
    padding: 8px 10px;
    font-size: 13px;
    line-height: 19px;
    margin-bottom: 8px;
  }
  h3 {
    display: flex;
    justify-content: space-between;
    font-size: 12px;
    line-height: 16px;
    font-weight: 600;
    color: var(--do);
    margin-bottom: 4px;
  }
  h3 .link {
    color: var(--ink-2);
    font-weight: 400;
  }
  .text {
    white-space: pre-line;
    overflow-wrap: anywhere;
    max-height: 132px;
    overflow: auto;
  }
  .mind {
    color: var(--mind);
    padding-top: 4px;
  }
  textarea {
    width: 100%;
    font-family: var(--figure);
    font-size: 12px;
  }
  .foot {
    position: sticky;
    bottom: -14px;
    margin: 0 -16px;
    padding: 8px 16px 6px;
    background: var(--paper);
    border-top: 1px solid var(--line-soft);
  }
  .scope {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 8px;
    align-items: center;
    margin-bottom: 8px;
  }
  .scope select {
    width: 100%;
    max-width: none;
  }
  .acts + .quiet {
    padding-top: 6px;
  }
  .acts {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
</style>
