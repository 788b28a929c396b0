<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';

  /** What is right as it is in some sections, with the reason. */
  let { again }: { again: () => void } = $props();
  let rows = $state.raw<Schemas['RightRow'][] | null>(null);
  let trouble = $state.raw<unknown>(null);

  async function load() {
    const term = session.term?.id;
    if (!term) return;
    try {
      rows = await got(api.GET('/api/checks/right', { params: { query: { term } } }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function look(r: Schemas['RightRow']) {
    try {
      const body = { subject: r.subject, sections: r.sections };
      await got(
        api.POST('/api/checks/{check}/again', { params: { path: { check: r.check } }, body }),
      );
      again();
    } catch (e) {
      trouble = e;
    }
    await load();
  }
</script>

<div class="room">
  <Trouble of={trouble} />
  {#if rows?.length}
    <table>
      <tbody>
        {#each rows as r (r.check + r.subject + r.reason)}
          <tr>
            <td>{r.words}</td>
            <td class="quiet">{r.reason}</td>
            <td class="fig">{many(r.sections.length, 'section')}</td>
            <td><button class="link" onclick={() => look(r)}>Look at it again</button></td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else if rows}
    <p class="quiet">
      Nothing was said to be right as it is. What is stays here with its reason, as long as it looks
      the same.
    </p>
  {/if}
</div>

<style>
  .room {
    padding: 0 16px 64px 0;
    overflow: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
  }
  td {
    padding: 5px 10px 5px 0;
    border-bottom: 1px solid var(--line-soft);
  }
</style>
