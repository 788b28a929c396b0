<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { session } from '../frame/session.svelte';
  import { weightWords, type Board, type Weight } from './checks';

  /** Which checks the college looks at, and how bad each is. */
  let { groups }: { groups: Board['groups'] } = $props();
  let rules = $state.raw<Schemas['CheckRule'][]>([]);
  let trouble = $state.raw<unknown>(null);
  let may = $derived(session.me?.role !== 'DESIGNER');
  const weights = Object.entries(weightWords) as [Weight, string][];

  async function load() {
    try {
      rules = await got(api.GET('/api/checks/choices'));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function put(r: Schemas['CheckRule'], to: { looked?: boolean; weight?: Weight }) {
    try {
      const body = { looked: r.looked, weight: r.weight, ...to };
      const params = { path: { check: r.check } };
      await got(api.PUT('/api/checks/choices/{check}', { params, body }));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
    await load();
  }
</script>

<div class="room">
  <Trouble of={trouble} />
  <p class="quiet">A change counts from the next look on.</p>
  <table>
    <tbody>
      {#each groups as g (g.group)}
        {#each rules.filter((r) => r.group === g.group) as r, n (r.check)}
          <tr>
            <th scope="row">{n ? '' : g.words}</th>
            <td>
              <label class="look"
                ><input
                  type="checkbox"
                  checked={r.looked}
                  disabled={!may}
                  onchange={(e) => put(r, { looked: e.currentTarget.checked })}
                />{r.words}</label
              >
              <span class="quiet">{r.sentence}</span>
            </td>
            <td>
              <select
                class="entry"
                aria-label="How bad: {r.words}"
                value={r.weight}
                disabled={!may || !r.looked}
                onchange={(e) => put(r, { weight: e.currentTarget.value as Weight })}
              >
                {#each weights as [w, words] (w)}<option value={w}
                    >{words}{w === r.usual ? ' (as it comes)' : ''}</option
                  >{/each}
              </select>
            </td>
          </tr>
        {/each}
      {/each}
    </tbody>
  </table>
</div>

<style>
  .room {
    overflow: auto;
    min-height: 0;
    padding: 0 16px 64px 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13.5px;
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid var(--line-soft);
    text-align: left;
    vertical-align: top;
  }
  th {
    white-space: nowrap;
    font-weight: 650;
  }
  .look {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 24px;
  }
  td .quiet {
    display: block;
    padding-left: 24px;
    font-size: 13px;
  }
</style>
