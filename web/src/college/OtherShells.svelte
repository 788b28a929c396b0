<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';

  /** Shells that are no section's: to try deliveries in, or shared by many. */
  let { platforms }: { platforms: Schemas['PlatformView'][] } = $props();
  let shells = $state.raw<Schemas['OtherShell'][]>([]);
  let loose = $state.raw<Schemas['LooseShell'][]>([]);
  let courses = $state.raw<Schemas['Course'][]>([]);
  let platform = $state('');
  let shell = $state('');
  let course = $state('');
  let purpose = $state<Schemas['OtherShell']['purpose']>('PRACTICE');
  let trouble = $state.raw<unknown>(null);
  let open = $derived(platforms.filter((p) => p.address));
  const kinds = { PRACTICE: 'to try things in', SHARED: 'shared by many sections' } as const;

  async function load() {
    try {
      [shells, courses] = await Promise.all([
        got(api.GET('/api/shells')),
        got(api.GET('/api/courses')),
      ]);
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function look(id: string) {
    platform = id;
    shell = '';
    loose = [];
    if (!id) return;
    try {
      const params = { path: { platform: id }, query: {} };
      loose = await got(api.GET('/api/shells/loose/{platform}', { params }));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }

  async function take(e: SubmitEvent) {
    e.preventDefault();
    try {
      await got(api.POST('/api/shells', { body: { platform, shell, purpose, course } }));
      trouble = null;
      await Promise.all([load(), look(platform)]);
    } catch (x) {
      trouble = x;
    }
  }
</script>

{#each shells as s (s.section)}
  <p>
    <b>{s.title}</b>
    <span class="quiet">{kinds[s.purpose]}, for {s.course}, on {s.platform}</span>
    <a class="link" href="/sections/{s.section}">what it holds</a>
    {#if s.address}<a class="link" href={s.address} target="_blank" rel="noopener">open it</a>{/if}
  </p>
{:else}
  <p class="quiet">
    None yet. A delivery can be tried in one first, and then go to all the same way.
  </p>
{/each}
<form onsubmit={take}>
  <label
    ><span class="words">Platform</span><select
      class="entry"
      aria-label="Platform of the shell"
      value={platform}
      onchange={(e) => look(e.currentTarget.value)}
    >
      <option value="">choose</option>
      {#each open as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
    </select></label
  >
  <label
    ><span class="words">Shell that belongs to no section</span><select
      class="entry"
      bind:value={shell}
      disabled={!loose.length}
    >
      <option value="">{platform && !loose.length ? 'there is none' : 'choose'}</option>
      {#each loose as l (l.id)}<option value={l.id}>{l.title || l.id}</option>{/each}
    </select></label
  >
  <label
    ><span class="words">It is</span><select class="entry" bind:value={purpose}>
      {#each Object.entries(kinds) as [k, w] (k)}<option value={k}>{w}</option>{/each}
    </select></label
  >
  <label
    ><span class="words">For</span><select
      class="entry"
      aria-label="For the course"
      bind:value={course}
    >
      <option value="">choose</option>
      {#each courses as c (c.id)}<option value={c.id}>{c.code}</option>{/each}
    </select></label
  >
  <Act type="submit" disabled={!shell || !course}>Take this shell</Act>
</form>
<Trouble of={trouble} />

<style>
  p {
    display: flex;
    gap: 10px;
    align-items: baseline;
    flex-wrap: wrap;
  }
  form {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr) 190px 110px auto;
    gap: 8px;
    align-items: end;
  }
  select {
    width: 100%;
  }
</style>
