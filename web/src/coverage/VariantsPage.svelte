<script lang="ts">
  import { diffWords } from 'diff';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { readAgain } from '../frame/reading';
  import { session } from '../frame/session.svelte';
  import Standing from '../marks/Standing.svelte';
  import { aspect, everyAspect, kind, many } from '../marks/words';
  import VariantPane from './VariantPane.svelte';
  import { aspects, groups, says, type Group, type Variants } from './variants';

  /** One item across all sections of the term, those together that made the same of it. */
  let { id }: { id: string } = $props();
  let master = $derived(id.split('/')[0]);
  let key = $derived(id.split('/')[1] ?? '');
  let variants = $state.raw<Variants | null>(null);
  let trouble = $state.raw<unknown>(null);
  let reading = $state('');
  keyList.of = [
    ['j, k', 'To the next form, to the one before'],
    ['x', 'Take its sections in hand'],
  ];

  async function load() {
    if (!session.term) return;
    try {
      const params = { path: { id: master, key }, query: { term: session.term.id } };
      variants = await got(api.GET('/api/coverage/masters/{id}/items/{key}', { params }));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  let by = $derived(place.get('by'));
  let of = $derived(variants ? groups(variants, aspects(by)) : []);
  let chosen = $derived(
    of.find((g) => g.name === place.get('form')) ?? of.find((g) => g.what === 'own') ?? of[0],
  );
  let newest = $derived(variants?.versions.at(-1));

  function keyed(e: KeyboardEvent) {
    const at = e.target as HTMLElement;
    if (/^(INPUT|SELECT|TEXTAREA)$/.test(at.tagName) || e.ctrlKey || e.metaKey || e.altKey) return;
    const step = { j: 1, k: -1 }[e.key];
    if (step && chosen) {
      const to = of[of.indexOf(chosen) + step];
      if (to) place.set({ form: to.name });
    }
    if (e.key === 'x' && chosen) hand.only(chosen.sections.map((s) => s.section));
  }

  /** What a form says otherwise than the newest version; only what stands around a change. */
  function otherwise(g: Group) {
    if (!newest || !g.view || g.view === newest.view) return [];
    const parts = diffWords(says(newest.view), says(g.view));
    return parts.flatMap((p, i) => {
      if (p.added || p.removed) return [p];
      const text = p.value.split(/\s+/);
      const few = 5;
      const short =
        i === 0
          ? '… ' + text.slice(-few).join(' ')
          : i === parts.length - 1
            ? text.slice(0, few).join(' ') + ' …'
            : text.length > 2 * few
              ? text.slice(0, few).join(' ') + ' … ' + text.slice(-few).join(' ')
              : p.value;
      return [{ ...p, value: text.length > few ? short : p.value }];
    });
  }

  async function readAll() {
    const all = (variants?.sections ?? []).filter((s) => s.number).map((s) => s.section);
    try {
      await readAgain(all, (left) => (reading = `Reading again: ${many(left, 'shell')} left …`));
      await load();
    } catch (e) {
      trouble = e;
    }
    reading = '';
  }
</script>

<svelte:window onkeydown={keyed} />
<div class="page">
  <main>
    <Trouble of={trouble} />
    {#if variants}
      <div class="head">
        <h1>
          {variants.title} stands in {many(
            variants.sections.filter((s) => s.here).length,
            'section',
          )} in {many(of.filter((g) => g.what !== 'gone').length, 'form')}
        </h1>
        <span class="quiet cut">
          <a class="link" href="/sources/masters/{master}">{variants.masterCode}</a> ·
          {kind(variants.kind)}
        </span>
      </div>
      <div class="by" role="group" aria-label="Alike by">
        <span class="quiet">Alike by</span>
        {#each everyAspect as a (a)}
          <button class="tab" aria-pressed={by === a} onclick={() => place.set({ by: a, form: '' })}
            >{aspect(a)}</button
          >
        {/each}
        <button class="tab" aria-pressed={!by} onclick={() => place.set({ by: '', form: '' })}
          >everything</button
        >
      </div>
      <ul>
        {#each of as g (g.name)}
          <li class:on={g === chosen}>
            <button
              class="form"
              aria-pressed={g === chosen}
              onclick={() => place.set({ form: g.name })}
            >
              <span>
                <b>{g.title}</b> <span class="fig quiet">{g.sections.length}</span>
                <span class="quiet about">{g.about}</span>
              </span>
              <span class="marks" aria-hidden="true">
                {#each g.sections.slice(0, 120) as s (s.section)}
                  <Standing
                    size={15}
                    behind={g.behind}
                    never={g.what === 'gone'}
                    changed={g.what === 'own'}
                  />
                {/each}
                {#if g.sections.length > 120}<span class="quiet"
                    >and {g.sections.length - 120} more</span
                  >{/if}
              </span>
              <span class="diff">
                {#each otherwise(g) as p, i (i)}{#if p.added}<ins>{p.value}</ins
                    >{:else if p.removed}<del>{p.value}</del>{:else}{p.value}{/if}{/each}
              </span>
            </button>
          </li>
        {/each}
      </ul>
      {#if !variants.sections.length}
        <p class="quiet">No section of this term holds {variants.masterCode}, or should.</p>
      {/if}
    {:else if !trouble}<h1>Looking at all sections …</h1>{/if}
  </main>
  {#if variants && chosen}
    <VariantPane {variants} group={chosen} {master} item={key} changed={load} />
  {/if}
</div>
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words={reading}
>
  {#if hand.size}<Act onclick={() => hand.drop()}>Put all back</Act>{/if}
  {#if variants}<Act disabled={Boolean(reading)} onclick={readAll}>Read these shells again</Act
    >{/if}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside-wide);
  }
  main {
    padding: 12px 0 0 16px;
    min-height: 0;
    overflow: auto;
  }
  .head {
    display: flex;
    gap: 14px;
    align-items: baseline;
    padding-right: 16px;
  }
  .by {
    display: flex;
    gap: 14px;
    align-items: center;
    margin: 6px 0 8px;
  }
  ul {
    border-top: 1px solid var(--line);
  }
  li {
    border-bottom: 1px solid var(--line);
    border-left: 3px solid transparent;
  }
  li.on {
    border-left-color: var(--do);
    background: var(--paper);
  }
  .form {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr) minmax(0, 260px);
    gap: 14px;
    width: 100%;
    text-align: left;
    padding: 8px 14px 10px 9px;
    align-items: start;
    cursor: pointer;
  }
  .about {
    display: block;
  }
  .marks {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 4px;
  }
  .diff {
    font-size: 13px;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 4;
    line-clamp: 4;
    overflow: hidden;
    overflow-wrap: anywhere;
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
