<script lang="ts">
  import type { Schemas } from '../api/client';
  import Standing from '../marks/Standing.svelte';
  import { packageOf, sheetOf } from '../packages/packages';

  type Line = Schemas['DeliveryLine'];
  /** One section of a run: how far it is, and what holds it up if that is not said above. */
  let { line: l, said }: { line: Line; said: ReadonlySet<string> } = $props();

  function share(l: Line): number {
    if (l.state === 'NOT_YET') return 0; // what waits to be brought in is written, and has not come
    return l.state === 'DONE' ? 1 : l.steps ? l.stepsDone / l.steps : 0;
  }
  function count(l: Line): string {
    if (l.state === 'NEEDS_PERSON') return 'needs you';
    if (l.state === 'WAITING') return 'waits';
    if (l.state === 'NOT_YET') return 'not yet';
    if (l.state === 'ACCEPTED') return 'accepted';
    if (l.state === 'STOPPED') return 'stopped';
    if (l.state === 'DONE' && !l.steps) return 'done';
    return `${l.stepsDone} of ${l.steps}`;
  }
  function says(l: Line): string {
    if (l.state === 'TRYING_AGAIN') {
      const s = Math.max(1, Math.round((Date.parse(l.nextTry ?? '') - Date.now()) / 1000));
      const why = said.has(l.reason ?? '') ? '' : ': ' + (l.reason ?? '');
      return `trying again in ${s} s${why}`;
    }
    if (l.state === 'ACCEPTED') return 'accepted, not there yet';
    if (l.state === 'NOT_YET')
      return l.waitsFor === 'TIME' ? 'waits for the set time' : `${l.reason} ${l.remedy}`;
    return l.activity;
  }
</script>

<div class="l" class:need={l.state === 'NEEDS_PERSON'}>
  <span class="who">
    <Standing size={16} share={share(l)} failed={l.state === 'NEEDS_PERSON'} />
    <a class="fig link plain" href="/sections/{l.section}">{l.code}</a>
  </span>
  <span class="quiet cut">{l.campus} · {l.instructors}</span>
  <span
    class="track {l.state}"
    role="progressbar"
    aria-label="{l.code}: {count(l)}"
    aria-valuemin="0"
    aria-valuemax="100"
    aria-valuenow={Math.round(share(l) * 100)}><i style="width:{share(l) * 100}%"></i></span
  >
  <span class="fig quiet">{count(l)}</span>
  {#if l.state === 'NEEDS_PERSON'}
    <span>
      {l.reason}
      {l.stepsDone
        ? `${l.stepsDone} of ${l.steps} steps are written and kept.`
        : 'Nothing was written.'}
      {l.remedy}
    </span>
  {:else}
    <span class="quiet cut" title={says(l)}
      >{#if l.state === 'NOT_YET' && l.waitsFor === 'PACKAGE'}waits to be brought in:
        <a class="link" href={packageOf(l.section)} download>package</a>,
        <a class="link" href={sheetOf(l.section)} target="_blank" rel="noopener">sheet</a
        >{:else}{says(l)}{/if}</span
    >
  {/if}
</div>

<style>
  .l {
    display: grid;
    grid-template-columns: 84px 190px 1fr 96px 330px;
    gap: 12px;
    align-items: center;
    height: 30px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .l.need {
    height: auto;
    padding: 8px 16px;
    background: var(--harm-soft);
    line-height: 17px;
  }
  .who {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .plain {
    text-decoration: none;
  }
  .track {
    height: 8px;
    background: var(--line-soft);
    border-radius: 1px;
    display: block;
  }
  .track i {
    display: block;
    height: 100%;
    background: var(--calm);
    transition: width 0.6s;
  }
  .track.RUNNING i,
  .track.ACCEPTED i,
  .track.TRYING_AGAIN i {
    background: var(--do);
  }
  .track.NEEDS_PERSON i {
    background: var(--harm);
  }
</style>
