<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { exact, many } from '../marks/words';
  import SectionLinks from './SectionLinks.svelte';
  import { reasonWords, stageWords, whoseWords, type Cell, type Tools } from './tools';

  /** One section at a host: what holds it up, and whose the next step is. */
  let { cell, tools, begun }: { cell: Cell; tools: Tools; begun: () => void } = $props();
  let trouble = $state.raw<unknown>(null);
  let connection = $derived(tools.connections.find((c) => c.id === cell.state.connection));
  let s = $derived(cell.section);

  /** More than the picture of all hosts holds of each section. */
  let more = $state.raw<Schemas['SectionToolView'] | undefined>();
  let asked = $state('');
  const outcomes = { OPENED: 'opened', REFUSED: 'refused', NO_ANSWER: 'no answer' };
  $effect(() => {
    const host = cell.host;
    void cell.state;
    void got(
      api.GET('/api/tools/sections/{section}', { params: { path: { section: s.id } } }),
    ).then(
      (all) => {
        more = all.tools.find((t) => t.host === host);
        asked = all.trouble;
      },
      (e) => (trouble = e),
    );
  });

  async function done() {
    if (!cell.state.stuck) return;
    try {
      await got(
        api.POST('/api/tools/done', {
          body: { sections: [s.id], host: cell.host, stage: cell.state.stuck },
        }),
      );
      trouble = null;
      begun();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<section>
  <div class="line">
    <h2 class="fig">{s.code}</h2>
    <button class="tab" onclick={() => place.set({ at: '' })} aria-label="Close {s.code}"
      >Close</button
    >
  </div>
  <p class="quiet">{s.title}<br />{s.campus} · {s.instructors || 'nobody yet'}</p>
  <dl>
    <dt>Host</dt>
    <dd class="fig">{cell.host}</dd>
    <dt>Links</dt>
    <dd>{many(cell.links, 'link')}</dd>
    <dt>State</dt>
    <dd>
      {reasonWords[cell.state.reason]}{cell.writing === 1
        ? '; its credentials are on their way'
        : ''}
      {#if cell.writing === 2}<br /><span class="harm">They could not be written.</span>{/if}
    </dd>
    {#if cell.state.standing !== 'WORKS'}
      <dt>Next step</dt>
      <dd>{whoseWords[cell.state.whose]}</dd>
    {/if}
    {#if cell.course}
      <dt>Course there</dt>
      <dd class="fig">{cell.course}</dd>
    {/if}
    {#if more?.until && cell.state.stuck === 'WAIT'}
      <dt>Ready at</dt>
      <dd>{exact(more.until)}</dd>
    {/if}
    {#if more?.scored}
      <dt>Scores</dt>
      <dd>
        came back {exact(more.scored)}{more.scaled
          ? `; out of ${more.outOf} there, ${more.points} here, so they are scaled`
          : ''}
      </dd>
    {/if}
    {#if cell.said}
      <dt>It said</dt>
      <dd>“{cell.said}”</dd>
    {/if}
    {#if asked}
      <dt>Platform</dt>
      <dd>could not be asked: {asked}</dd>
    {/if}
    {#if more?.tests.length}
      <dt>Tests</dt>
      <dd>
        <ul class="plain">
          {#each more.tests as t (t.at + t.role)}
            <li>
              {exact(t.at)}, {t.role === 'INSTRUCTOR' ? 'instructor' : 'student'}: {outcomes[
                t.outcome
              ]}{t.said ? `, “${t.said}”` : ''}
            </li>
          {/each}
        </ul>
      </dd>
    {/if}
    {#if connection}
      <dt>Stages</dt>
      <dd>
        <ol>
          {#each connection.stages as stage (stage)}
            <li class:stuck={stage === cell.state.stuck}>{stageWords[stage]}</li>
          {/each}
        </ol>
      </dd>
    {/if}
  </dl>
  <Trouble of={trouble} />
  {#if cell.state.stuck && cell.state.stuck !== 'APPROVAL' && cell.state.stuck !== 'PAIRING'}
    <Act onclick={done}>Say that this is done: {stageWords[cell.state.stuck]}</Act>
  {/if}
  {#key s.id + cell.host}<SectionLinks section={s.id} host={cell.host} tested={begun} />{/key}
  <p class="ways">
    <button class="link" onclick={() => hand.toggle(s.id)}
      >{hand.has(s.id) ? 'Put it back' : 'Take it in hand'}</button
    >
    <a class="link" href="/sections/{s.id}">Every item of it</a>
  </p>
</section>

<style>
  .line {
    display: flex;
    justify-content: space-between;
  }
  dl {
    display: grid;
    grid-template-columns: 88px 1fr;
    row-gap: 4px;
    font-size: 13.5px;
    margin: 10px 0;
  }
  dt {
    color: var(--ink-3);
  }
  ol {
    margin: 0;
    padding-left: 16px;
    list-style: decimal;
  }
  .stuck {
    font-weight: 650;
  }
  .harm {
    color: var(--harm);
  }
  .ways {
    display: flex;
    gap: 14px;
    margin-top: 10px;
  }
</style>
