<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import When from '../frame/When.svelte';
  import { place } from '../frame/place.svelte';
  import { aspectList, kind, many } from '../marks/words';

  /** What a section held before deliveries changed it; each delivery can be taken back from here. */
  let { section }: { section: string } = $props();
  let points = $state.raw<Schemas['RestorePoint'][]>([]);
  let since = $state.raw<Schemas['SinceThen'] | null>(null);
  let reading = $state('');
  let trouble = $state.raw<unknown>(null);
  let open = $derived(place.get('then'));

  $effect(() => {
    const params = { path: { id: section } };
    void got(api.GET('/api/sections/{id}/restore-points', { params })).then(
      (p) => (points = p),
      (e) => (trouble = e),
    );
  });
  $effect(() => {
    since = null;
    if (!open) return;
    const asked = open;
    reading = open;
    const params = { path: { id: section, delivery: open } };
    void got(api.GET('/api/sections/{id}/restore-points/{delivery}', { params }))
      .then(
        (s) => {
          if (asked === open) since = s;
        },
        (e) => (trouble = e),
      )
      .finally(() => (reading = ''));
  });

  async function takeBack(delivery: string) {
    const params = { path: { id: delivery } };
    try {
      const body = { sections: [section] };
      const made = await got(api.POST('/api/deliveries/{id}/take-back', { params, body }));
      place.go('/deliveries/' + made.id);
    } catch (e) {
      trouble = e;
    }
  }
  const lists = [
    ['missing', 'missing now'],
    ['different', 'different now'],
    ['surplus', 'there besides now'],
  ] as const;
</script>

{#if points.length}
  <details open={Boolean(open)}>
    <summary>{many(points.length, 'restore point')}</summary>
    <Trouble of={trouble} />
    <ul>
      {#each points as p (p.delivery)}
        <li>
          <span
            >{many(p.items, 'item')} before
            <a class="link" href="/deliveries/{p.delivery}"
              ><b class="fig">{p.masterCode}</b> v{p.number}</a
            >{p.takesBack ? ' was taken back' : ''}
            <span class="quiet"
              >by {p.by}, <When at={p.takenAt} />; kept until {p.keepUntil.slice(0, 10)}</span
            ></span
          >
          <Act
            disabled={reading === p.delivery}
            onclick={() => place.set({ then: open === p.delivery ? '' : p.delivery })}
            >{reading === p.delivery
              ? 'Reading the shell …'
              : open === p.delivery
                ? 'Close'
                : 'What is otherwise now'}</Act
          >
          <Act onclick={() => takeBack(p.delivery)}>Take that delivery back here …</Act>
        </li>
        {#if open === p.delivery && since}
          <li class="since">
            {#each lists as [name, said] (name)}
              {#if since[name].length}
                <p>
                  <b>{since[name].length} {said}:</b>
                  {since[name]
                    .slice(0, 12)
                    .map(
                      (i) =>
                        i.title +
                        ' (' +
                        (i.aspects.length ? aspectList(i.aspects) : kind(i.kind)) +
                        ')',
                    )
                    .join(', ')}{since[name].length > 12 ? ' …' : ''}
                </p>
              {/if}
            {/each}
            {#if !since.missing.length && !since.different.length && !since.surplus.length}
              <p class="quiet">The shell holds exactly what it held then.</p>
            {/if}
          </li>
        {/if}
      {/each}
    </ul>
  </details>
{:else}<Trouble of={trouble} />{/if}

<style>
  details {
    padding: 0 16px 8px 0;
  }
  summary {
    cursor: pointer;
    width: max-content;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 8px;
    align-items: center;
    padding: 3px 0;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .since {
    display: block;
    padding: 4px 0 8px;
  }
</style>
