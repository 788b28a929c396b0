<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import { clip } from './clip.svelte';
  import type { OpenMaster } from './master.svelte';

  /** What is in hand: chosen items, what was cut or copied, else the sections that are behind. */
  let {
    work,
    number,
    chosen = $bindable(),
    pick,
    put,
    takeOut,
  }: {
    work: OpenMaster;
    number: number;
    chosen: ReadonlySet<string>;
    pick: (away: boolean) => void;
    put: () => void;
    takeOut: (keys: string[]) => void;
  } = $props();
  let newest = $derived(work.newest);
  /** Items that go with chosen ones and are not chosen. */
  let tied = $derived.by(() => {
    const ties = new Set(
      work.nodes.filter((n) => chosen.has(n.key) && n.goesWith).map((n) => n.goesWith),
    );
    return work.nodes.filter((n) => n.goesWith && ties.has(n.goesWith) && !chosen.has(n.key));
  });
  let held = $derived(work.holders());

  async function takeOld() {
    const term = session.term?.id;
    if (!term) return;
    const c = await got(api.GET('/api/coverage', { params: { query: { term } } }));
    const of = c.standings[c.masters.findIndex((m) => m.id === work.id)];
    hand.only(of.section.filter((_, i) => of.number[i] < newest).map((s) => c.sections[s].id));
    place.go('/coverage?master=' + work.id);
  }
</script>

{#if chosen.size || clip.of}
  <HandFrame
    title={chosen.size
      ? many(chosen.size, 'item') + ' chosen'
      : `${many(clip.of!.keys.length, 'item')} ${clip.of!.cut ? 'cut' : 'copied'}`}
    words={chosen.size ? 'Alt with arrows moves one; drag moves all.' : `“${clip.of!.title}”`}
  >
    {#if chosen.size}
      {#if tied.length}
        <Act
          title={tied.map((n) => n.title).join(', ')}
          onclick={() => (chosen = new Set([...chosen, ...tied.map((n) => n.key)]))}
          >And {many(tied.length, 'item')} that {tied.length === 1 ? 'goes' : 'go'} with {chosen.size ===
          1
            ? 'it'
            : 'them'}</Act
        >
      {/if}
      {#if !number && chosen.size > 1}
        <Act onclick={() => void work.tie([...chosen], true)}>Tie them</Act>
      {/if}
      {#if !number}<Act onclick={() => pick(true)}>Cut</Act>{/if}
      <Act onclick={() => pick(false)}>Copy</Act>
      {#if !number}
        <Act onclick={() => takeOut([...chosen])}>Take out</Act>
      {/if}
      <Act onclick={() => (chosen = new Set())}>Choose none</Act>
    {:else}
      {#if !number}
        <Act main onclick={put}>Put {many(clip.of!.keys.length, 'item')} here</Act>
      {/if}
      <Act onclick={() => (clip.of = null)}>Forget them</Act>
    {/if}
  </HandFrame>
{:else}
  <HandFrame
    title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
    words={held.old
      ? `${many(held.old, 'section')} ${held.old === 1 ? 'holds' : 'hold'} an older version than v${newest}`
      : newest
        ? 'No section holds an older version.'
        : 'Freeze a version, then deliver it.'}
  >
    {#if newest}<Act onclick={takeOld}>Take those without v{newest} in hand</Act>{/if}
  </HandFrame>
{/if}
