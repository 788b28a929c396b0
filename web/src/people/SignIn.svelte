<script lang="ts">
  import { api, csrf, got, problem } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Making from '../frame/Making.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import Vane from '../frame/Vane.svelte';
  import { session } from '../frame/session.svelte';

  let name = $state('');
  let email = $state('');
  let password = $state('');
  let trouble = $state.raw<unknown>(null);
  let busy = $state(false);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    trouble = null;
    busy = true;
    try {
      if (session.needsFirstPerson) {
        await got(
          api.POST('/api/first-person', { body: { name, email, password, role: 'ADMINISTRATOR' } }),
        );
      }
      const answer = await fetch('/api/sign-in', {
        method: 'POST',
        headers: { 'X-XSRF-TOKEN': csrf() },
        body: new URLSearchParams({ username: email, password }),
      });
      if (!answer.ok) throw problem(answer.status, await answer.json());
      await session.load();
    } catch (e) {
      trouble = e;
    } finally {
      busy = false;
    }
  }
</script>

<main>
  <form onsubmit={send}>
    <h1><Vane />Zephyrmist</h1>
    {#if session.needsFirstPerson}
      <p class="quiet">
        Nobody is here yet. The first person becomes administrator and lets the others in.
      </p>
      <label
        ><span class="words">Your name</span><input
          class="entry"
          bind:value={name}
          required
        /></label
      >
    {:else}
      <p class="quiet">One version, many sections, and a ledger that remembers.</p>
      <Making wide />
    {/if}
    <label>
      <span class="words">Mail address</span>
      <input class="entry" type="email" autocomplete="username" bind:value={email} required />
    </label>
    <label>
      <span class="words">Password{session.needsFirstPerson ? ', at least 10 characters' : ''}</span
      >
      <input
        class="entry"
        type="password"
        autocomplete="current-password"
        minlength={session.needsFirstPerson ? 10 : 1}
        bind:value={password}
        required
      />
    </label>
    <Trouble of={trouble} />
    <Act main type="submit" disabled={busy}
      >{busy ? 'One moment …' : session.needsFirstPerson ? 'Begin' : 'Sign in'}</Act
    >
  </form>
</main>

<style>
  main {
    height: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 380px minmax(0, 2fr);
    align-items: center;
  }
  form {
    grid-column: 2;
    display: grid;
    gap: 12px;
    justify-items: start;
  }
  label {
    width: 100%;
  }
  h1 {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
