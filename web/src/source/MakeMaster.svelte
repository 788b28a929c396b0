<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';

  let {
    edition,
    section,
    title: first,
    cancel,
  }: { edition?: string; section?: string; title: string; cancel: () => void } = $props();
  let code = $state('');
  let title = $state(untrack(() => first));
  let courses = $state.raw<Schemas['Course'][]>([]);
  let chosen = $state.raw<string[]>([]);
  /** Instead of courses: all sections of a program, or of the whole college. */
  let every = $state<string | null>(null);
  let wide = $derived(
    session.me?.wholeCollege
      ? [['', 'every section of the college']]
      : (session.me?.programs ?? []).map((p) => [p.id, `every section of ${p.name}`]),
  );
  let trouble = $state.raw<unknown>(null);
  let busy = $state(false);

  $effect(
    () =>
      void got(api.GET('/api/courses')).then(
        (c) => (courses = c),
        (e) => (trouble = e),
      ),
  );

  function choose(course: Schemas['Course'], on: boolean) {
    chosen = on ? [...chosen, course.id] : chosen.filter((c) => c !== course.id);
    if (on && !code) {
      code = course.code;
      title = course.title;
    }
  }

  async function make(e: SubmitEvent) {
    e.preventDefault();
    busy = true;
    try {
      const expected = every === null ? chosen : [];
      const program = every || undefined;
      const made = await got(
        section
          ? api.POST('/api/masters/shells/{section}', {
              params: { path: { section } },
              body: { code, title, program, courses: expected },
            })
          : api.POST('/api/masters', {
              body: { code, title, edition, program, courses: expected },
            }),
      );
      place.go('/sources/masters/' + made.id);
    } catch (x) {
      trouble = x;
      busy = false;
    }
  }
</script>

<form onsubmit={make}>
  {#if !section}<h2>{edition ? 'Make this cartridge a master' : 'Begin an empty master'}</h2>{/if}
  <p class="quiet">
    {edition ? 'The master begins with all of its items. ' : ''}Which sections should hold it?
    Coverage counts the others out.
  </p>
  <fieldset>
    <legend class="words">Expected in</legend>
    {#each wide as [id, words] (id)}
      <label class="c"
        ><input
          type="checkbox"
          checked={every === id}
          onchange={(e) => (every = e.currentTarget.checked ? id : null)}
        />
        {words}</label
      >
    {/each}
    {#if every === null}
      <div class="courses">
        {#each courses as c (c.id)}
          <label class="c">
            <input
              type="checkbox"
              checked={chosen.includes(c.id)}
              onchange={(e) => choose(c, e.currentTarget.checked)}
            />
            <span class="fig">{c.code}</span> <span class="cut">{c.title}</span>
          </label>
        {:else}
          <p class="quiet">
            No courses yet. <a class="link" href="/college">Take in a roster</a> first.
          </p>
        {/each}
      </div>
    {/if}
  </fieldset>
  <div class="two">
    <label
      ><span class="words">Code</span><input
        class="entry"
        bind:value={code}
        required
        maxlength="40"
      /></label
    >
    <label
      ><span class="words">Title</span><input
        class="entry"
        bind:value={title}
        required
        maxlength="200"
      /></label
    >
  </div>
  <Trouble of={trouble} />
  <div class="acts">
    <Act main type="submit" disabled={busy || (every === null && !chosen.length)}
      >Make master {code}</Act
    >
    <Act onclick={cancel}>Cancel</Act>
  </div>
</form>

<style>
  form {
    padding: 22px 36px;
    display: grid;
    gap: 12px;
    max-width: 760px;
  }
  .courses {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px 20px;
    padding: 4px 0 0 20px;
  }
  .c {
    display: flex;
    gap: 8px;
    align-items: center;
    min-width: 0;
  }
  input[type='checkbox'] {
    accent-color: var(--do);
  }
  .two {
    display: grid;
    grid-template-columns: 140px 1fr;
    gap: 12px;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
