<script lang="ts">
  import HandFrame from '../frame/HandFrame.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { session } from '../frame/session.svelte';
  import Password from './Password.svelte';
  import Tokens from './Tokens.svelte';

  keyList.of = [];
</script>

<main class="page folio">
  <h1>{session.me?.name}</h1>
  <p class="quiet">{session.me?.email} · {session.me?.role.toLowerCase()}</p>
  <Tokens />
  <Password />
  <p class="quiet">
    Licences of what ships with Zephyrmist:
    <a class="link" href="/licences.txt" target="_blank" rel="noopener">fonts and scripts</a>,
    <a class="link" href="/licences-of-libraries.txt" target="_blank" rel="noopener"
      >libraries of the server</a
    >.
  </p>
</main>
<HandFrame title="Yours" words="Your password, and tokens with which your scripts sign in." />

<style>
  main {
    display: grid;
    gap: 14px;
    align-content: start;
    max-width: 860px;
  }
</style>
