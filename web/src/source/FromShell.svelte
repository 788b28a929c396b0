<script lang="ts">
  import { api, counted, got, type Kind, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { figure, kind, many } from '../marks/words';
  import MakeMaster from './MakeMaster.svelte';
  import SectionPick from './SectionPick.svelte';

  /** A master of what a shell holds; what stays out is told first. */
  let { cancel }: { cancel: () => void } = $props();
  let section = $state('');
  let look = $state.raw<Schemas['ShellLook'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  const why: Record<Schemas['StaysOut']['why'], string> = {
    STUDENT_WORK: 'Work, grades and posts of students stay where they are.',
    ANNOUNCEMENT: 'Announcements of that term stay out.',
    DATES: 'Dates that no pattern of the term can say are taken off.',
    TOOL_TIE: 'What tied tools to a course of that term is taken off.',
    FRESH_EACH_TERM: 'What is taken fresh each term comes from its own source.',
    EMPTY_MODULE: 'Modules in which nothing is left stay out.',
  };

  $effect(() => {
    if (!section) return;
    const path = { section };
    look = null;
    trouble = null;
    void got(api.GET('/api/masters/shells/{section}', { params: { path } })).then(
      (l) => {
        if (path.section === section) look = l;
      },
      (e) => (trouble = e),
    );
  });
</script>

<section>
  <h2>A master from a shell</h2>
  <p><SectionPick label="Section whose shell it is" bind:section /></p>
  <Trouble of={trouble} />
  {#if section && !look && !trouble}<p class="quiet">Reading the shell …</p>{/if}
  {#if look}
    <p>
      {many(look.items, 'item')}: {counted<Kind>(look.kinds)
        .map(([k, n]) => `${figure(n)} ${kind(k, n)}`)
        .join(', ')}. {look.known
        ? `${many(look.known, 'item')} of these ${look.known === 1 ? 'comes' : 'come'} from a source that is here, and keep that origin.`
        : ''}
    </p>
    <ul aria-label="What stays out">
      {#each look.left as l (l.why)}
        <li>
          {why[l.why]}
          <details>
            <summary class="quiet">{many(l.items, 'item')}</summary>
            {l.titles.join(', ')}{l.items > l.titles.length ? ' and more' : ''}
          </details>
        </li>
      {/each}
      {#if look.missing.length}
        <li>
          {many(look.missing.length, 'file')} only the platform has, fetched from there: {look.missing.join(
            ', ',
          )}
        </li>
      {/if}
    </ul>
    <MakeMaster {section} title="" {cancel} />
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 8px;
    padding: 10px 0 14px;
    border-bottom: 1px solid var(--line);
  }
  li {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
  }
</style>
