<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';

  /** What a tool sent back, before it goes into the draft. */
  let {
    id,
    pick,
    done,
    cancel,
  }: { id: string; pick: string; done: (keys: string[]) => void; cancel: () => void } = $props();
  let view = $state.raw<Schemas['PickView'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  const at = untrack(() => ({ params: { path: { id, pick } } }));

  void got(api.GET('/api/masters/{id}/draft/picks/{pick}', at)).then(
    (v) => (view = v),
    (e) => (trouble = e),
  );

  async function take() {
    try {
      done((await got(api.POST('/api/masters/{id}/draft/picks/{pick}/take', at))).keys);
    } catch (e) {
      trouble = e;
    }
  }
</script>

<div class="picked">
  {#if view}
    <h2>{view.tool} sends {many(view.resources.length, 'item')}</h2>
    {#if view.message}<p class="quiet">{view.message}</p>{/if}
    {#if view.trouble}<p class="harm" role="alert">{view.trouble} Pick once more.</p>{/if}
    <ul>
      {#each view.resources as r (r.address + r.title)}
        <li>
          <b>{r.title}</b>
          <span class="quiet"
            >{r.points
              ? `a task done in the tool, ${r.points} points`
              : r.tool
                ? 'a tool link'
                : 'a web link'}</span
          >
          <span class="fig quiet">{r.address}</span>
        </li>
      {/each}
    </ul>
    {#if view.left.length}
      <p>{many(view.left.length, 'item')} that a master cannot hold: {view.left.join(', ')}.</p>
    {/if}
    {#if view.taken}<p class="quiet">They are in the draft already.</p>{/if}
  {/if}
  <Trouble of={trouble} />
  <div class="acts">
    {#if view?.resources.length && !view.taken}<Act main onclick={take}>Add them to the draft</Act
      >{/if}
    <Act onclick={cancel}>{view?.taken ? 'Close' : 'Leave them'}</Act>
  </div>
</div>

<style>
  .picked {
    padding: 18px 24px;
    display: grid;
    gap: 12px;
    align-content: start;
    grid-row: 1 / 4;
    max-width: 720px;
  }
  ul {
    display: grid;
    gap: 8px;
    list-style: none;
    padding: 0;
  }
  li {
    display: grid;
    gap: 2px;
    border-top: 1px solid var(--line-soft);
    padding-top: 6px;
  }
  li .fig {
    overflow-wrap: anywhere;
    font-size: 13px;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
  .harm {
    color: var(--harm);
  }
</style>
