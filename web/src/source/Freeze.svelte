<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import Guard from './Guard.svelte';

  /** What is to be looked at before a version is frozen, and freezing it. */
  let {
    id,
    number,
    stamp,
    freeze,
    lead,
    cancel,
  }: {
    id: string;
    number: number;
    stamp: number;
    freeze: (note: string) => void;
    lead: (key: string) => void;
    cancel: () => void;
  } = $props();
  let note = $state('');
  let found = $state.raw<Schemas['Found'][] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let guarding = $state(false);
  let again = $state(0);

  $effect(() => {
    void stamp;
    void again;
    void got(api.GET('/api/masters/{id}/ready', { params: { path: { id } } })).then(
      (f) => (found = f),
      (e) => (trouble = e),
    );
  });
  let places = $derived(found?.reduce((n, f) => n + f.places.length, 0) ?? 0);
  let stops = $derived(found?.some((f) => f.stops) ?? false);
  const MOST = 40;
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    freeze(note);
  }}
>
  <h2>Ready to freeze version {number}?</h2>
  <div class="say">
    <label>
      <span class="words">What is new in version {number}? Everyone who gets it reads this.</span>
      <!-- svelte-ignore a11y_autofocus -->
      <input class="entry" bind:value={note} required maxlength="2000" autofocus />
    </label>
    <Act main type="submit" disabled={stops}
      >{places && !stops ? 'Freeze it nevertheless' : 'Freeze it'}</Act
    >
    <Act onclick={cancel}>Cancel</Act>
  </div>
  <Trouble of={trouble} />
  <p class="quiet">
    {!found
      ? 'Looking through the draft …'
      : places
        ? `${places} ${places === 1 ? 'place wants' : 'places want'} a look.${stops ? ' One of them keeps it from being frozen.' : ''}`
        : 'Nothing wants a look: no dead link, open note or empty item.'}
    <button type="button" class="link" onclick={() => (guarding = !guarding)}
      >What this master may hold</button
    >
  </p>
  {#if guarding}<Guard {id} saved={() => ((guarding = false), again++)} />{/if}
  {#each found ?? [] as f (f.rule)}
    <section aria-label={f.words}>
      <h3 class:harm={f.stops}>
        {f.words} <span class="fig">{f.places.length}</span>
        <span class="quiet">{f.remedy}</span>
      </h3>
      <ul>
        {#each f.places.slice(0, MOST) as p, i (i)}
          <li>
            {#if p.key}
              <button type="button" class="link cut" onclick={() => lead(p.key!)}>{p.title}</button>
            {/if}
            <span class="quiet cut" title={p.detail}>{p.detail}</span>
          </li>
        {/each}
        {#if f.places.length > MOST}<li class="quiet">
            and {f.places.length - MOST} more
          </li>{/if}
      </ul>
    </section>
  {/each}
</form>

<style>
  form {
    grid-row: 1 / 4;
    padding: 16px 24px;
    overflow: auto;
    min-height: 0;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  .say {
    display: flex;
    gap: 8px;
    align-items: end;
  }
  label {
    flex: 1;
  }
  h3 {
    font-weight: 650;
    display: flex;
    gap: 8px;
    align-items: baseline;
    border-bottom: 1px solid var(--line);
    padding-bottom: 3px;
  }
  h3 .quiet {
    font-weight: 400;
  }
  .harm {
    color: var(--harm);
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
    gap: 12px;
    min-height: 26px;
    align-items: center;
  }
  li .link {
    text-align: left;
  }
</style>
