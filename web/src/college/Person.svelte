<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { session } from '../frame/session.svelte';
  import RoleChoice from './RoleChoice.svelte';

  let {
    person,
    programs,
    done,
  }: {
    person: Schemas['PersonView'];
    programs: Schemas['ProgramView'][];
    done: () => void;
  } = $props();
  let name = $state(untrack(() => person.name));
  let role = $state(untrack(() => person.role));
  let reached = $state(untrack(() => [...person.programs]));
  let password = $state('');
  let ending = $state(false);
  let trouble = $state.raw<unknown>(null);
  let params = $derived({ path: { id: person.id } });
  let self = $derived(person.id === session.me?.id);

  async function act(call: () => Promise<unknown>) {
    try {
      await call();
      trouble = null;
      done();
    } catch (e) {
      trouble = e;
    }
  }
  const save = () =>
    act(() =>
      got(api.PUT('/api/people/{id}', { params, body: { name, role, programs: reached } })),
    );
  const give = () =>
    act(() => got(api.POST('/api/people/{id}/password', { params, body: { password } })));
  const end = () => act(() => got(api.DELETE('/api/people/{id}/access', { params })));
</script>

<div class="person">
  <form
    onsubmit={(e) => {
      e.preventDefault();
      void save();
    }}
  >
    <label><span class="words">Name</span><input class="entry" bind:value={name} required /></label>
    <RoleChoice bind:role />
    {#if role === 'COORDINATOR' || role === 'DESIGNER'}
      <fieldset>
        <legend class="words">Programs</legend>
        {#each programs as p (p.id)}
          <label class="check"
            ><input type="checkbox" value={p.id} bind:group={reached} />{p.name}</label
          >
        {:else}<span class="quiet">No roster has brought a program yet.</span>{/each}
      </fieldset>
    {/if}
    <Act main type="submit">Save {person.name}</Act>
  </form>
  {#if person.email}
    <form
      onsubmit={(e) => {
        e.preventDefault();
        void give();
      }}
    >
      <label
        ><span class="words"
          >{person.signsIn
            ? 'Another password; all sessions and tokens end'
            : 'First password'}</span
        ><input
          class="entry"
          type="password"
          minlength="10"
          autocomplete="new-password"
          bind:value={password}
          required
        /></label
      >
      <Act type="submit">Give it</Act>
    </form>
  {/if}
  {#if person.signsIn && !self}
    {#if ending}
      <p>
        {person.name} can no longer sign in; sessions and tokens end at once. What they did stays in the
        record.
        <Act main onclick={end}>End access</Act>
        <Act onclick={() => (ending = false)}>Keep it</Act>
      </p>
    {:else}
      <p><Act onclick={() => (ending = true)}>End access of {person.name}…</Act></p>
    {/if}
  {/if}
  <Trouble of={trouble} />
</div>

<style>
  .person {
    display: grid;
    gap: 10px;
    padding: 8px 12px;
    background: var(--raise);
    border: 1px solid var(--line);
    border-radius: var(--r);
  }
  form {
    display: flex;
    gap: 8px;
    align-items: end;
    flex-wrap: wrap;
  }
  fieldset {
    display: flex;
    gap: 4px 12px;
    flex-wrap: wrap;
    flex-basis: 100%;
  }
  .check {
    display: flex;
    gap: 5px;
    align-items: center;
  }
</style>
