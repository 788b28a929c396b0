<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import RoleChoice from './RoleChoice.svelte';

  let { done }: { done: () => void } = $props();
  type Role = Schemas['NewPerson']['role'];
  let name = $state('');
  let email = $state('');
  let password = $state('');
  let role = $state<Role>('COORDINATOR');
  let said = $state('');
  let trouble = $state.raw<unknown>(null);

  async function add(e: SubmitEvent) {
    e.preventDefault();
    try {
      await got(api.POST('/api/people', { body: { name, email, password, role } }));
      said = `${name} can sign in now.`;
      name = email = password = '';
      trouble = null;
      done();
    } catch (x) {
      trouble = x;
    }
  }
</script>

<form onsubmit={add}>
  <label><span class="words">Name</span><input class="entry" bind:value={name} required /></label>
  <label
    ><span class="words">Mail address</span><input
      class="entry"
      type="email"
      bind:value={email}
      required
    /></label
  >
  <label
    ><span class="words">First password</span><input
      class="entry"
      type="password"
      minlength="10"
      autocomplete="new-password"
      bind:value={password}
      required
    /></label
  >
  <RoleChoice bind:role />
  <Act main type="submit">Let this person in</Act>
</form>
{#if said}<p role="status" class="quiet">{said}</p>{/if}
<Trouble of={trouble} />

<style>
  form {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr auto auto;
    gap: 8px;
    align-items: end;
  }
</style>
