<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  let { done }: { done: () => void } = $props();
  let name = $state('');
  let address = $state('');
  let token = $state('');
  let trouble = $state.raw<unknown>(null);

  async function add(e: SubmitEvent) {
    e.preventDefault();
    try {
      await got(api.POST('/api/platforms', { body: { name, address, token } }));
      name = address = token = '';
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
    ><span class="words">Address</span><input
      class="entry"
      type="url"
      placeholder="https://"
      bind:value={address}
      required
    /></label
  >
  <label
    ><span class="words">Token; it is never shown again</span><input
      class="entry"
      type="password"
      autocomplete="off"
      bind:value={token}
      required
    /></label
  >
  <Act main type="submit">Name this platform</Act>
</form>
<Trouble of={trouble} />

<style>
  form {
    display: grid;
    grid-template-columns: 180px 1fr 1fr auto;
    gap: 8px;
    align-items: end;
  }
</style>
