<script lang="ts">
  import HandFrame from '../lib/HandFrame.svelte';
  import { keyList } from '../lib/keys.svelte';
  import { session } from '../lib/session.svelte';
  import Password from './Password.svelte';
  import Tokens from './Tokens.svelte';

  keyList.of = [];
</script>

<main>
  <h1>{session.me?.name}</h1>
  <p class="quiet">{session.me?.email} · {session.me?.role.toLowerCase()}</p>
  <Tokens />
  <Password />
</main>
<HandFrame title="Yours" words="Your password, and tokens with which your scripts sign in." />

<style>
  main {
    padding: 12px 16px 24px;
    overflow: auto;
    height: calc(100vh - 44px - 52px);
    display: grid;
    gap: 14px;
    align-content: start;
    max-width: 860px;
  }
</style>
