<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  /** What the sheet with each package for a platform says, in the college's words. */
  let { id, name }: { id: string; name: string } = $props();
  let words = $state<Schemas['SheetWords'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  const fields = [
    ['version', 'Version of the platform', ''],
    ['where', 'Where a package goes in', 'For instance: Course tools, then Bring in content'],
    ['avoid', 'Which entry that sounds alike to avoid', 'Not: Copy a course'],
    ['untick', 'What to leave unticked', ''],
    ['takes', 'How long it takes', ''],
    ['ends', 'How one sees that it has ended', ''],
  ] as const;
  $effect(
    () =>
      void got(api.GET('/api/platforms/{id}/sheet', { params: { path: { id } } })).then(
        (w) => (words = w),
        (e) => (trouble = e),
      ),
  );

  async function save(e: SubmitEvent) {
    e.preventDefault();
    if (!words) return;
    said = '';
    try {
      await got(api.PUT('/api/platforms/{id}/sheet', { params: { path: { id } }, body: words }));
      trouble = null;
      said = `The sheets for ${name} say so from now on.`;
    } catch (x) {
      trouble = x;
    }
  }
</script>

{#if words}
  <form onsubmit={save}>
    {#each fields as [field, label, hint] (field)}
      <label
        ><span class="words">{label}</span><input
          class="entry"
          maxlength={field === 'version' ? 200 : 1000}
          placeholder={hint}
          bind:value={words[field]}
        /></label
      >
    {/each}
    <span class="do"
      ><Act main type="submit">Keep what the sheets say</Act>
      {#if said}<span role="status">{said}</span>{/if}</span
    >
  </form>
{/if}
<Trouble of={trouble} />

<style>
  form {
    display: grid;
    gap: 6px;
    padding: 4px 0 8px 12px;
  }
  .do {
    display: flex;
    gap: 12px;
    align-items: center;
  }
</style>
