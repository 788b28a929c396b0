<script lang="ts">
  import { diffWords } from 'diff';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import Standing from '../marks/Standing.svelte';
  import { ago, aspectList, many } from '../marks/words';
  import { says, type Group, type Variants } from './variants';

  /** One form of an item: what it says, where, and what can be done with it. */
  let {
    variants,
    group,
    master,
    item,
    changed,
  }: {
    variants: Variants;
    group: Group;
    master: string;
    item: string;
    /** Something was accepted. */
    changed: () => void;
  } = $props();
  const most = 60;
  let trouble = $state.raw<unknown>(null);
  let done = $state('');
  let newest = $derived(variants.versions.at(-1));
  let parts = $derived(newest ? diffWords(says(newest.view), says(group.view)) : []);
  let ids = $derived(group.sections.map((s) => s.section));
  let taken = $derived(group.changed.filter((a) => a !== 'PLACE'));
  let open = $derived(group.sections.some((s) => s.changed.length));
  // The same form read again is no other: what was done with it is still told.
  let shown = $derived(`${item} ${group.name}`);
  $effect(() => {
    void shown;
    done = '';
    trouble = null;
  });

  function order(more: Record<string, string>) {
    hand.only(ids);
    const said = new URLSearchParams({ master, what: 'SOME', items: item, ...more });
    place.go('/deliveries/new?' + said.toString());
  }
  async function act(what: () => Promise<string>) {
    try {
      const said = await what();
      trouble = null;
      changed();
      done = said;
    } catch (e) {
      trouble = e;
    }
  }
  const take = () =>
    act(async () => {
      const params = { path: { id: master, key: item } };
      const body = { section: ids[0], aspects: taken };
      await got(api.POST('/api/masters/{id}/draft/items/{key}/from-section', { params, body }));
      return 'It is in the master’s draft now, and can be undone there.';
    });
  const accept = () =>
    act(async () => {
      const params = { path: { id: master, key: item } };
      const body = { sections: ids, aspects: group.changed };
      const a = await got(
        api.POST('/api/coverage/masters/{id}/items/{key}/accept', { params, body }),
      );
      return `Accepted in ${many(a.sections, 'section')}; it is asked about no more.`;
    });
</script>

<aside class="aside">
  <h2>{group.title}</h2>
  <p class="quiet">
    {group.about}{group.changed.length ? `; ${aspectList(group.changed)}` : ''}.
  </p>
  <Trouble of={trouble} />
  {#if group.view}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <p class="text" tabindex="0">
      {#if group.what === 'own'}
        {#each parts as p, i (i)}{#if p.added}<ins>{p.value}</ins>{:else if p.removed}<del
              >{p.value}</del
            >{:else}{p.value}{/if}{/each}
      {:else}{says(group.view)}{/if}
    </p>
  {:else if group.what === 'own'}
    <p class="quiet">One of very many forms; open a section to see it.</p>
  {/if}
  <div class="ways">
    {#if group.what === 'own' && taken.length}
      <Act main onclick={take}>Take it into the master’s draft</Act>
    {/if}
    {#if group.what === 'own' && newest}
      <Act onclick={() => order({ clash: 'PUT_BACK' })}
        >Put version {variants.newest} back in {ids.length === 1 ? 'it' : `these ${ids.length}`} …</Act
      >
      {#if open}<Act onclick={accept}>Accept it here, ask no more</Act>{/if}
    {:else if group.what === 'gone' || group.behind}
      <Act main onclick={() => order(group.what === 'gone' ? { clash: 'PUT_BACK' } : {})}
        >Bring it to {ids.length === 1 ? 'it' : `these ${ids.length}`} …</Act
      >
    {/if}
    {#if ids.length}<Act onclick={() => hand.only(ids)}
        >Take {many(ids.length, 'section')} in hand</Act
      >{/if}
  </div>
  {#if done}<p class="quiet" role="status">{done}</p>{/if}
  <div class="list">
    {#each group.sections.slice(0, most) as s (s.section)}
      <div class="row">
        <Standing
          size={15}
          behind={group.behind}
          never={group.what === 'gone'}
          changed={group.what === 'own'}
        />
        <a class="fig link" href="/sections/{s.section}">{s.code}</a>
        <span class="quiet cut">{s.campus} · {s.instructors}</span>
        <span class="fig faint" title={s.by ? `by ${s.by}` : ''}
          >{s.changedAt && group.what === 'own' ? ago(s.changedAt) : ''}</span
        >
      </div>
    {/each}
    {#if group.sections.length > most}
      <p class="quiet">{group.sections.length - most} more</p>
    {/if}
  </div>
  <p class="faint"><kbd>j</kbd> <kbd>k</kbd> go through the forms, <kbd>x</kbd> takes in hand</p>
</aside>

<style>
  .aside {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .text {
    white-space: pre-line;
    background: var(--raise);
    border: 1px solid var(--line);
    padding: 8px 10px;
    max-height: 220px;
    flex: none;
    overflow: auto;
    font-size: 13.5px;
  }
  .ways {
    display: grid;
    gap: 8px;
  }
  .list {
    min-height: 0;
    overflow: auto;
  }
  .row {
    display: grid;
    grid-template-columns: 22px 66px minmax(0, 1fr) auto;
    gap: 4px;
    align-items: center;
    height: 26px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  ins {
    background: var(--own-soft);
    text-decoration: none;
    border-bottom: 1px solid var(--own);
  }
  del {
    color: var(--ink-2);
  }
</style>
