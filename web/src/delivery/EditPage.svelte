<script lang="ts">
  import { api, got, type Kind, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { kind, many } from '../marks/words';
  import { everyEdit, needs, type What } from './edits';

  /** One change, made alike in all sections in hand; it ends as a plan. */
  keyList.of = [];
  type Item = { subject: string; title: string; kind: Kind; depth: number };
  let masters = $state.raw<Schemas['MasterView'][]>([]);
  let items = $state.raw<Item[]>([]);
  let added = $state.raw<Item[]>([]);
  let trouble = $state.raw<unknown>(null);
  let chosen = $state<Record<string, boolean>>({});
  let find = $state('');
  let put = $state('');
  let from = $state('');
  let after = $state('');
  let look = $state('');
  let what = $derived((place.get('what') || 'HIDE') as What);
  let master = $derived(masters.find((m) => m.id === place.get('master')) ?? masters[0]);
  let need = $derived(needs[what]);

  $effect(() => {
    got(api.GET('/api/masters')).then(
      (m) => (masters = m.filter((x) => x.versions.length)),
      (e) => (trouble = e),
    );
  });
  $effect(() => {
    if (!master) return;
    const of = master.id;
    const params = { path: { id: of, number: Math.max(...master.versions.map((v) => v.number)) } };
    got(api.GET('/api/masters/{id}/versions/{number}/outline', { params })).then(
      (lines) => {
        const depth = new Map<string, number>();
        items = lines.map((l) => {
          const d = l.parent ? (depth.get(l.parent) ?? 0) + 1 : 0;
          depth.set(l.key, d);
          return { subject: `ours ${of} ${l.key}`, title: l.title, kind: l.kind, depth: d };
        });
      },
      (e) => (trouble = e),
    );
    if (!session.term) return;
    const query = { term: session.term.id };
    got(api.GET('/api/coverage/masters/{id}/added', { params: { path: { id: of }, query } })).then(
      (a) =>
        (added = a.map((x) => ({
          subject: `own ${x.kind} ${x.title}`,
          title: x.title,
          kind: x.kind,
          depth: 0,
        }))),
      (e) => (trouble = e),
    );
  });
  const fits = (i: Item) => i.title.toLowerCase().includes(look.toLowerCase());
  let ticked = $derived(Object.keys(chosen).filter((s) => chosen[s]));
  let whole = $derived(
    hand.size > 0 &&
      (!need.items || ticked.length > 0) &&
      (!need.words || find.trim() !== '') &&
      (!need.from || from !== '') &&
      (!need.after || after !== ''),
  );

  async function plan() {
    try {
      const made = await got(
        api.POST('/api/deliveries/edits', {
          body: {
            what,
            sections: [...hand.sections],
            about: need.choice || need.items ? ticked : undefined,
            find: need.words ? find : undefined,
            put: need.words ? put : undefined,
            from: need.from ? from : undefined,
            after: need.after ? after : undefined,
          },
        }),
      );
      place.go('/deliveries/' + made.id);
    } catch (e) {
      trouble = e;
    }
  }
</script>

<main class="page folio">
  <h1>One change in {hand.size ? many(hand.size, 'section') : 'the sections in hand'}</h1>
  <Trouble of={trouble} />
  {#if !hand.size}
    <p class="quiet">
      Take sections in hand first, under <a class="link" href="/coverage">Coverage</a> or
      <a class="link" href="/checks">Checks</a>.
    </p>
  {/if}
  <div class="say">
    <select
      class="entry"
      aria-label="What is changed"
      value={what}
      onchange={(e) => place.set({ what: e.currentTarget.value })}
    >
      {#each everyEdit as [w, words] (w)}<option value={w}>{words}</option>{/each}
    </select>
    {#if need.from}
      <label>from <input class="entry" type="datetime-local" bind:value={from} /></label>
    {/if}
    {#if need.words}
      <label
        >“<input class="entry" aria-label="Words" maxlength="200" bind:value={find} />” becomes</label
      >
      <label
        >“<input
          class="entry"
          aria-label="Words in their place"
          maxlength="200"
          bind:value={put}
        />”</label
      >
    {/if}
    {#if need.after}
      <label
        >after <select class="entry" bind:value={after}>
          <option value="">an item …</option>
          {#each items.filter((i) => i.kind !== 'MODULE') as i (i.subject)}<option value={i.subject}
              >{i.title}</option
            >{/each}
        </select></label
      >
    {/if}
  </div>
  <p class="quiet">{need.says}</p>
  {#if need.items || need.choice}
    <div class="say">
      <select
        class="entry"
        aria-label="Master"
        value={master?.id}
        onchange={(e) => {
          chosen = {};
          place.set({ master: e.currentTarget.value });
        }}
      >
        {#each masters as m (m.id)}<option value={m.id}>{m.code} {m.title}</option>{/each}
      </select>
      <input
        class="entry"
        type="search"
        placeholder="Find an item"
        aria-label="Find an item"
        bind:value={look}
      />
      <span class="quiet"
        >{ticked.length
          ? many(ticked.length, 'item') + ' chosen'
          : need.items
            ? 'No item is chosen yet.'
            : 'None chosen: wherever it is found.'}</span
      >
    </div>
    <div class="lists">
      {@render list(`In ${master?.code ?? 'the master'}`, items.filter(fits))}
      {@render list('Added by hand', added.filter(fits))}
    </div>
  {/if}
</main>
{#snippet list(words: string, of: Item[])}
  <section aria-label={words}>
    <h2>{words}</h2>
    {#each of as i (i.subject)}
      <label class="tick" style="padding-left:{i.depth * 16}px">
        <input type="checkbox" bind:checked={chosen[i.subject]} />
        <span class="cut">{i.title}</span><span class="faint">{kind(i.kind)}</span>
      </label>
    {:else}<p class="faint">None.</p>{/each}
  </section>
{/snippet}
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words="Nothing moves before the plan is confirmed."
>
  <Act main disabled={!whole} onclick={plan}>Plan it for {many(hand.size, 'section')}</Act>
</HandFrame>

<style>
  .page {
    display: flex;
    flex-direction: column;
    gap: 8px;
    min-height: 0;
  }
  .say {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  .say label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .say .entry {
    width: auto;
    min-width: 200px;
  }
  .say .entry[type='search'] {
    width: 240px;
  }
  .lists {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 24px;
    min-height: 0;
    overflow: auto;
    padding-bottom: 60px;
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
  .tick {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 24px;
    font-size: 13.5px;
  }
</style>
