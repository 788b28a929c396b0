<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import {
    byReason,
    reasonWords,
    toEnter,
    toWrite,
    type Cell,
    type HostBand,
    type Tools,
  } from './tools';

  /** What can be done with the sections in hand at the chosen host. */
  let {
    tools,
    host,
    chosen,
    begun,
  }: { tools: Tools; host?: HostBand; chosen: Cell[]; begun: () => void } = $props();

  let said = $state('');
  let writes = $derived(toWrite(chosen, tools.connections));
  let enters = $derived(toEnter(chosen));
  let opens = $derived(chosen.filter((c) => c.state.whose === 'INSTRUCTOR'));
  let links = $derived(writes.reduce((n, c) => n + c.links, 0));
  let dead = $derived(host?.cells.filter((c) => c.state.standing !== 'WORKS') ?? []);
  let wrong = $derived(chosen.filter((c) => c.state.standing === 'TIED_WRONGLY'));
  let mayWrite = $derived(session.me?.role !== 'DESIGNER');
  let tested = $derived(
    chosen.filter((c) =>
      ['WORKS', 'REFUSED', 'STUDENTS_SHUT_OUT', 'NO_ANSWER'].includes(c.state.reason),
    ),
  );
  const ids = (cells: Cell[]) => cells.map((c) => c.section.id);
  /** What was said stays until other sections are in hand, not until the picture is read again. */
  let about = $derived(`${host?.host} ${chosen.length}`);
  $effect(() => {
    void about;
    said = '';
  });

  async function connect() {
    try {
      let sections = 0;
      let byHand = 0;
      const of = new Set(writes.map((c) => c.state.connection!));
      for (const id of of) {
        const some = ids(writes.filter((c) => c.state.connection === id));
        const done = await got(
          api.POST('/api/tools/connections/{id}/apply', {
            params: { path: { id } },
            body: { sections: some, really: true },
          }),
        );
        sections += done.sections;
        byHand += done.byHand.length;
      }
      begun();
      said = [
        sections ? `Its credentials are on their way into ${many(sections, 'shell')}` : '',
        byHand ? `${many(byHand, 'shell')} can be written to by hand alone` : '',
      ]
        .filter(Boolean)
        .join('; ');
    } catch (e) {
      said = (e as Error).message;
    }
  }

  async function entered() {
    if (!host) return;
    try {
      await got(
        api.POST('/api/tools/done', {
          body: { sections: ids(enters), host: host.host, stage: 'CREDENTIALS' },
        }),
      );
      begun();
    } catch (e) {
      said = (e as Error).message;
    }
  }

  async function write() {
    try {
      const { people } = await got(
        api.POST('/api/hand-overs/remind', {
          body: { kind: 'OPEN_ONCE', host: host?.host ?? '', sections: ids(opens) },
        }),
      );
      said = people
        ? `Mail goes to ${many(people, 'instructor')}, with a link for each section`
        : 'No instructor of these sections has a mail address, or they were written to today';
    } catch (e) {
      said = (e as Error).message;
    }
  }

  async function look() {
    try {
      const { left } = await got(api.POST('/api/tools/look', { body: { sections: ids(chosen) } }));
      said = `Asking the platform about ${many(left, 'shell')} …`;
      begun();
    } catch (e) {
      said = (e as Error).message;
    }
  }

  async function test() {
    if (!host) return;
    try {
      const b = await got(
        api.POST('/api/tools/tests', { body: { sections: ids(tested), host: host.host } }),
      );
      said = `Testing ${many(b.testing, 'section')} as instructor and as student …`;
      begun();
    } catch (e) {
      said = (e as Error).message;
    }
  }

  let words = $derived(
    said ||
      byReason(chosen)
        .slice(0, 2)
        .map(([r, c]) => `${c.length}: ${reasonWords[r]}`)
        .join(' · '),
  );
</script>

{#if host && chosen.length}
  <HandFrame title="{many(chosen.length, 'section')} in hand" {words}>
    <button class="link quiet" onclick={() => hand.drop()}>Put all back</button>
    <Act onclick={look}>Look again</Act>
    {#if tested.length}<Act onclick={test}>Test {many(tested.length, 'section')}</Act>{/if}
    {#if opens.length && mayWrite}
      <Act onclick={write}>Ask {many(opens.length, 'section')} to open it</Act>
    {/if}
    {#if wrong.length && mayWrite}
      <Act main={!writes.length} onclick={() => place.set({ mend: '1', enter: '', at: '' })}
        >Mend {many(wrong.length, 'tie')}</Act
      >
    {/if}
    {#if enters.length && mayWrite}
      <Act onclick={entered} title="Their platform has no interface: somebody enters them there"
        >Say that {enters.length} are entered by hand</Act
      >
    {/if}
    {#if writes.length && mayWrite}
      <Act main onclick={connect}
        >Connect {many(links, 'link')} in {many(writes.length, 'section')}</Act
      >
    {/if}
  </HandFrame>
{:else}
  <HandFrame
    title="No section in hand"
    words={host
      ? dead.length
        ? `${many(dead.length, 'section')} of ${host.name} ${dead.length === 1 ? 'does' : 'do'} not work`
        : `${host.name} works everywhere`
      : 'Choose a host, or sweep over its sections'}
  >
    {#if host && dead.length}
      <Act onclick={() => hand.only(ids(dead))}>Take the {dead.length} in hand</Act>
    {/if}
  </HandFrame>
{/if}
