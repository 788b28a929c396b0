<script lang="ts">
  import Act from '../frame/Act.svelte';

  let {
    number,
    freeze,
    cancel,
  }: { number: number; freeze: (note: string) => void; cancel: () => void } = $props();
  let note = $state('');
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    freeze(note);
  }}
>
  <label>
    <span class="words">What is new in version {number}? Everyone who gets it reads this.</span>
    <!-- svelte-ignore a11y_autofocus -->
    <input class="entry" bind:value={note} required maxlength="2000" autofocus />
  </label>
  <Act main type="submit">Freeze it</Act>
  <Act onclick={cancel}>Cancel</Act>
</form>

<style>
  form {
    display: flex;
    gap: 8px;
    align-items: end;
    padding-top: 8px;
  }
  label {
    flex: 1;
  }
</style>
