<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { formats } from '../source/formats';

  /** What the college advises for packages that go to each platform. */
  let all = $state<Schemas['PlatformAdvice'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');

  const load = () =>
    got(api.GET('/api/platforms/advice')).then(
      (a) => (all = a),
      (e) => (trouble = e),
    );
  $effect(() => void load());

  async function save(a: Schemas['PlatformAdvice']) {
    said = '';
    trouble = null;
    try {
      await got(
        api.PUT('/api/platforms/{id}/advice', {
          params: { path: { id: a.id } },
          body: { format: a.format || undefined, advice: a.advice },
        }),
      );
      said = `Kept for ${a.name}.`;
    } catch (e) {
      trouble = e;
    }
  }
</script>

<p class="quiet">Shown to whoever makes a package for the platform.</p>
<Trouble of={trouble} />
{#each all as a (a.id)}
  <form
    onsubmit={(e) => {
      e.preventDefault();
      void save(a);
    }}
  >
    <b>{a.name}</b>
    <select class="entry" aria-label="Package for {a.name}" bind:value={a.format}>
      <option value={undefined}>no format advised</option>
      {#each formats as [f, name] (f)}<option value={f}>{name}</option>{/each}
    </select>
    <input
      class="entry"
      aria-label="Advice for {a.name}"
      placeholder="What to do there, for instance where to take it in"
      maxlength="1000"
      bind:value={a.advice}
    />
    <Act type="submit">Keep</Act>
  </form>
{/each}
{#if said}<p class="quiet" role="status">{said}</p>{/if}

<style>
  form {
    display: grid;
    grid-template-columns: 180px 230px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
  }
</style>
