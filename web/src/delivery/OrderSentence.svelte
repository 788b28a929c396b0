<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../frame/place.svelte';
  import { many } from '../marks/words';
  import ByKind from './ByKind.svelte';
  import Choice from './Choice.svelte';
  import IntoPick from './IntoPick.svelte';
  import TogetherPick from './TogetherPick.svelte';
  import type { Order } from './order';
  import {
    brought,
    leavesOut,
    leftOut,
    nothingOut,
    only,
    partSets,
    spared,
  } from './partSets.svelte';
  import { words } from './orderWords';

  /** A delivery said in a sentence, whose underlined parts are its choices. */
  let {
    master,
    version,
    versions,
    order,
    say,
    fixed,
    tried,
    sections,
    weeks,
    attaching,
    together = $bindable(),
  }: {
    master: Schemas['MasterView'];
    version: Schemas['MasterView']['versions'][number];
    versions: Schemas['MasterView']['versions'];
    order: Order;
    say: (change: Partial<Order>) => void;
    /** What it brings and where is settled: it is planned anew. */
    fixed: boolean;
    /** It goes to a shell to try it in. */
    tried: boolean;
    sections: number;
    /** How many weeks are new to some section. */
    weeks: number;
    /** How many items of the version have files attached. */
    attaching: number;
    together: string[];
  } = $props();
  let alone = $derived(brought(order, partSets.all));
  let whats = $derived<Record<string, string>>({
    ...words.what,
    ...Object.fromEntries(partSets.all.map((s) => [s.id, `only “${s.name}”`])),
  });
  let spares = $derived(leftOut(order, partSets.all));
  let outs = $derived<Record<string, string>>({
    '': 'nothing left out',
    ...(leavesOut(order) && !spares ? { SOME: 'some left out' } : {}),
    ...Object.fromEntries(partSets.all.map((s) => [s.id, `“${s.name}” left out`])),
  });
  const set = (id: string) => partSets.all.find((s) => s.id === id);

  function what(to: string) {
    const s = set(to);
    say(s ? { ...nothingOut, ...only(s) } : { what: to as Order['what'] });
  }

  function out(to: string) {
    const s = set(to);
    if (s || !to) say(s ? spared(s) : nothingOut);
  }

  let versionWords = $derived(
    Object.fromEntries(versions.map((v) => [String(v.number), `version ${v.number}`])),
  );
</script>

<h1 class="sentence">
  Bring <Choice label="What" words={whats} value={alone?.id ?? order.what} choose={what} />
  of {master.code},
  {#if fixed || versions.length === 1}version {version.number}{:else}<Choice
      label="Version"
      words={versionWords}
      value={String(version.number)}
      choose={(v) => place.set({ v })}
    />{/if}, {#if !fixed && sections}<TogetherPick
      {master}
      version={version.id}
      bind:versions={together}
    />
  {/if}
  {#if !alone && (partSets.all.length || leavesOut(order))}<Choice
      label="Left out"
      words={outs}
      value={spares?.id ?? (leavesOut(order) ? 'SOME' : '')}
      choose={out}
    />,
  {/if}
  {#if attaching || order.attachments === 'OUT'}<Choice
      label="What is attached to items"
      words={words.attachments}
      value={order.attachments}
      choose={(attachments) => say({ attachments })}
    />,
  {/if}
  to
  {#if fixed}{many(sections, 'section')}{:else if tried}one shell{:else}<a
      class="where"
      href="/coverage">{many(sections, 'section')}</a
    >{/if}, {#if order.what === 'SOME'}<IntoPick {order} {say} />,
  {/if}
  <Choice
    label="What the shells are like"
    words={words.onto}
    value={order.onto}
    choose={(onto) => say({ onto })}
  />, {#if weeks || order.weeks !== 'ADD'}<Choice
      label="Week places"
      words={words.weeks}
      value={order.weeks}
      choose={(weeks) => say({ weeks })}
    />,
  {/if} new items <Choice
    label="How new items arrive"
    words={words.arrival}
    value={order.arrival}
    choose={(arrival) => say({ arrival })}
  />, <Choice
    label="Dates"
    words={words.dates}
    value={order.dates}
    choose={(dates) => say({ dates })}
  />; in a clash <Choice
    label="In a clash"
    words={words.clash}
    value={order.clash}
    choose={(clash) => say({ clash })}
  /><ByKind
    label="In a clash"
    words={words.clash}
    made={order.clashOf}
    other={order.clash === 'KEEP_SECTION' ? 'TAKE_VERSION' : 'KEEP_SECTION'}
    choose={(clashOf) => say({ clashOf })}
  />, a twin <Choice
    label="A twin"
    words={words.twin}
    value={order.twin}
    choose={(twin) => say({ twin })}
  /><ByKind
    label="A twin"
    words={words.twin}
    made={order.twinOf}
    other={order.twin === 'ADOPT' ? 'LEAVE' : 'ADOPT'}
    choose={(twinOf) => say({ twinOf })}
  />; <Choice
    label="How many at once"
    words={words.atOnce}
    value={order.atOnce}
    choose={(atOnce) => say({ atOnce })}
  />.
</h1>

<style>
  .sentence {
    font-size: 16.5px;
    line-height: 32px;
    font-weight: 400;
    letter-spacing: 0;
    text-wrap: pretty;
  }
  .where {
    display: inline-block;
    height: 28px;
    line-height: 26px;
    font-weight: 650;
    border-bottom: 2px solid var(--do);
    padding: 0 2px;
  }
  .where:hover {
    background: var(--do-soft);
  }
</style>
