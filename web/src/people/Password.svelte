<script lang="ts">
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  let old = $state('');
  let password = $state('');
  let said = $state('');
  let trouble = $state.raw<unknown>(null);

  async function change(e: SubmitEvent) {
    e.preventDefault();
    said = '';
    try {
      await got(api.POST('/api/me/password', { body: { old, password } }));
      said = 'Your password is changed. You are signed out everywhere else.';
      old = password = '';
      trouble = null;
    } catch (x) {
      trouble = x;
    }
  }
</script>

<section>
  <h2>Another password</h2>
  <form onsubmit={change}>
    <label>
      <span class="words">Old password</span>
      <input
        class="entry"
        type="password"
        autocomplete="current-password"
        bind:value={old}
        required
      />
    </label>
    <label>
      <span class="words">New password, ten characters or more</span>
      <input
        class="entry"
        type="password"
        minlength="10"
        maxlength="72"
        autocomplete="new-password"
        bind:value={password}
        required
      />
    </label>
    <Act type="submit">Change it</Act>
  </form>
  {#if said}<p role="status" class="quiet">{said}</p>{/if}
  <Trouble of={trouble} />
</section>

<style>
  section {
    display: grid;
    gap: 6px;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 12px;
  }
  .words {
    display: block;
  }
</style>
