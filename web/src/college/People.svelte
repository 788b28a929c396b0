<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import AddPerson from './AddPerson.svelte';
  import Person from './Person.svelte';

  /** Everybody who can sign in, and whom rosters brought: role, programs, access. */
  let list = $state.raw<Schemas['PeopleList'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let find = $state('');
  let open = $state('');
  let adding = $state(false);

  async function load() {
    try {
      list = await got(api.GET('/api/people', { params: { query: { q: find } } }));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  const roles: Record<Schemas['PersonView']['role'], string> = {
    COORDINATOR: 'coordinator',
    DESIGNER: 'designer',
    INSTRUCTOR: 'instructor',
    ADMINISTRATOR: 'administrator',
  };
  function reaches(p: Schemas['PersonView']): string {
    if (p.role === 'ADMINISTRATOR') return 'everything';
    if (p.role === 'INSTRUCTOR') return 'own sections';
    if (list && p.programs.length === list.programs.length) return 'all programs';
    const names = list?.programs.filter((x) => p.programs.includes(x.id)).map((x) => x.name) ?? [];
    return names.join(', ') || 'no program';
  }

  onEscape(() => {
    if (open) open = '';
    else if (adding) adding = false;
    else return false;
    return true;
  });
</script>

<div class="tools">
  <input
    class="entry"
    type="search"
    placeholder="Find a person"
    aria-label="Find a person"
    bind:value={find}
  />
  <Act onclick={() => (adding = !adding)}>{adding ? 'Not now' : 'Let somebody in'}</Act>
</div>
{#if adding}<AddPerson done={load} />{/if}
<Trouble of={trouble} />
{#if list}
  <table>
    <thead>
      <tr
        ><th>Name</th><th>Mail address</th><th>Role</th><th>Reaches</th><th>Signs in</th><th
          ><span class="sr-only">Change</span></th
        ></tr
      >
    </thead>
    <tbody>
      {#each list.people as p (p.id)}
        <tr class:off={!p.signsIn}>
          <td>{p.name}{p.id === session.me?.id ? ' (you)' : ''}</td>
          <td class="quiet">{p.email ?? 'none'}</td>
          <td>{roles[p.role]}</td>
          <td class="quiet">{reaches(p)}</td>
          <td class="quiet"
            >{p.signsIn ? 'yes' : 'no'}{p.tokens ? `, ${many(p.tokens, 'token')}` : ''}</td
          >
          <td>
            <button
              class="link"
              aria-expanded={open === p.id}
              aria-label="Change {p.name}"
              onclick={() => (open = open === p.id ? '' : p.id)}>Change</button
            >
          </td>
        </tr>
        {#if open === p.id}
          <tr
            ><td colspan="6"
              ><Person
                person={p}
                programs={list.programs}
                done={() => ((open = ''), void load())}
              /></td
            ></tr
          >
        {/if}
      {:else}
        <tr><td colspan="6" class="quiet">Nobody of this name.</td></tr>
      {/each}
    </tbody>
  </table>
  {#if list.all > list.people.length}
    <p class="quiet">
      The first {list.people.length} of {many(list.all, 'person', 'people')}; find the others by
      name.
    </p>
  {/if}
{:else if !trouble}
  <div class="skeleton" role="status" aria-label="Reading who there is"></div>
{/if}

<style>
  .tools {
    display: flex;
    gap: 8px;
  }
  .tools input {
    max-width: 220px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }
  th {
    text-align: left;
    font-weight: 600;
    color: var(--ink-2);
    border-bottom: 1px solid var(--line);
    padding: 3px 8px 3px 0;
  }
  td {
    padding: 3px 8px 3px 0;
    border-bottom: 1px solid var(--line-soft);
    vertical-align: top;
  }
  .off td:first-child {
    color: var(--ink-2);
  }
</style>
