<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';

  /** What a master is called and whose it is, who else changes it, and how it ends. */
  let {
    master,
    changed,
    cancel,
  }: { master: Schemas['MasterView']; changed: () => void; cancel: () => void } = $props();
  const params = untrack(() => ({ path: { id: master.id } }));
  let code = $state(untrack(() => master.code));
  let title = $state(untrack(() => master.title));
  let program = $state(untrack(() => master.program ?? ''));
  let programs = $state.raw<Schemas['ProgramView'][]>([]);
  let able = $state.raw<Schemas['PersonView'][]>([]);
  let keepers = $state.raw<string[]>([]);
  let holders = $state.raw<Schemas['Holders'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let ending = $state(false);
  let rules = $derived(session.me?.role === 'ADMINISTRATOR');
  let held = $derived(holders ? holders.sections.length + holders.others : 0);
  let terms = $derived(
    [...new Set(holders?.sections.map((h) => h.term))].map(
      (t) => [t, holders!.sections.filter((h) => h.term === t)] as const,
    ),
  );
  const MOST = 40;

  async function load() {
    try {
      holders = await got(api.GET('/api/masters/{id}/holders', { params }));
      if (rules) {
        const college = await got(api.GET('/api/people'));
        programs = college.programs;
        able = college.people.filter((p) => p.role === 'COORDINATOR' || p.role === 'DESIGNER');
        keepers = (await got(api.GET('/api/masters/{id}/keepers', { params }))).map((k) => k.id);
      } else programs = session.me?.programs ?? [];
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function act(what: () => Promise<unknown>, then: () => void = changed) {
    trouble = null;
    try {
      await what();
      then();
    } catch (e) {
      trouble = e;
    }
  }
  const save = (e: SubmitEvent) => {
    e.preventDefault();
    void act(async () => {
      const body = { code, title, program: program || undefined };
      await got(api.PUT('/api/masters/{id}', { params, body }));
      if (rules && !program)
        await got(api.PUT('/api/masters/{id}/keepers', { params, body: { people: keepers } }));
    });
  };
  const retire = () => act(() => got(api.POST('/api/masters/{id}/retire', { params })));
  const bringBack = () => act(() => got(api.POST('/api/masters/{id}/bring-back', { params })));
  const remove = () =>
    act(
      () => got(api.DELETE('/api/masters/{id}', { params })),
      () => place.go('/sources'),
    );
</script>

<form onsubmit={save}>
  <h2>Name and program of {master.code}</h2>
  <Trouble of={trouble} />
  {#if master.yours}
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
    <label class="whose"
      ><span class="words">Whose it is: who sees and changes it</span><select
        class="entry"
        bind:value={program}
      >
        {#if session.me?.wholeCollege || !master.program}<option value="">The whole college</option
          >{/if}
        {#each programs as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
        {#if master.program && !programs.some((p) => p.id === master.program)}
          <option value={master.program}>{master.programName}</option>
        {/if}
      </select></label
    >
    {#if rules && !program && able.length}
      <fieldset>
        <legend class="words">Who changes it beside administrators</legend>
        <div class="people">
          {#each able as p (p.id)}
            <label class="c"
              ><input type="checkbox" value={p.id} bind:group={keepers} />
              <span class="cut">{p.name}</span></label
            >
          {/each}
        </div>
      </fieldset>
    {/if}
    <p class="quiet">
      Where it is expected is said under <a class="link" href="/coverage/rules?master={master.id}"
        >Who should hold what</a
      >.
    </p>
    <div class="acts">
      <Act main type="submit">Save</Act>
      <Act onclick={cancel}>Cancel</Act>
    </div>
    <h2>Its end</h2>
    {#if holders}
      <p>
        {held
          ? `${many(held, 'section')} of this term or a later one hold it. What stands in their shells stays there.`
          : 'No section of this term or a later one holds it.'}
      </p>
      {#if held}
        {#each terms as [term, all] (term)}
          <p class="quiet fig holders">
            <span>{term}:</span>
            {#each all.slice(0, MOST) as h, i (i)}<span>{h.section} v{h.version}</span>{/each}
            {#if all.length > MOST}<span>and {all.length - MOST} more</span>{/if}
          </p>
        {/each}
        {#if holders.others}<p class="quiet">
            {holders.others} of them are of other programs.
          </p>{/if}
      {/if}
    {/if}
    <div class="acts">
      {#if master.retiredAt}
        <Act onclick={() => void bringBack()}>Bring it back into use</Act>
      {:else}
        <Act onclick={() => void retire()}>Retire it: nobody receives it any more</Act>
      {/if}
      {#if ending}
        <Act onclick={() => void remove()}>Delete {master.code} with all its versions</Act>
      {:else}
        <Act onclick={() => (ending = true)}>Delete it…</Act>
      {/if}
    </div>
    <p class="quiet">One that was never planned or delivered can be deleted; others are retired.</p>
  {:else}
    <p>
      {master.code} is the whole college’s. An administrator changes it, or names you among those who
      do.
    </p>
    <div class="acts"><Act onclick={cancel}>Close</Act></div>
  {/if}
</form>

<style>
  form {
    grid-row: 1 / 4;
    padding: 22px 36px;
    display: grid;
    gap: 12px;
    align-content: start;
    max-width: 820px;
    min-height: 0;
    overflow: auto;
  }
  .two {
    display: grid;
    grid-template-columns: 140px 1fr;
    gap: 12px;
  }
  .whose {
    max-width: 420px;
  }
  .holders {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
  }
  .holders span {
    white-space: nowrap;
  }
  .people {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 2px 20px;
    max-height: 180px;
    overflow: auto;
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
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
