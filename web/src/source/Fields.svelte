<script lang="ts">
  import type { Field, Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Lines from './Lines.svelte';
  import Times from './Times.svelte';
  import type { Entry } from './entry';
  import type { Kept } from './editor/kept';
  import type { Node } from './tree';

  /** What is written of an item besides its title and its text. */
  let {
    entry = $bindable(),
    item,
    nodes,
    upload,
  }: {
    entry: Entry;
    item: Schemas['ItemView'];
    nodes: Node[];
    upload: (file: File) => Promise<Kept>;
  } = $props();
  const has = (...fields: Field[]) => fields.some((f) => item.fields.includes(f));
  const ways: [string, string][] = [
    ['file', 'a file'],
    ['text', 'typed text'],
    ['html', 'a written page'],
    ['url', 'an address'],
  ];
  let categories = $derived(nodes.filter((n) => n.kind === 'GRADE_CATEGORY'));
  let rubrics = $derived(nodes.filter((n) => n.kind === 'RUBRIC'));
  let groupSets = $derived(nodes.filter((n) => n.kind === 'GROUP_SET'));
  let outcomes = $derived<[string, string][]>(
    nodes.filter((n) => n.kind === 'OUTCOME').map((n) => [n.key, n.title]),
  );
  let total = $derived(entry.criteria.reduce((sum, c) => sum + (Number(c.points) || 0), 0));
  let trouble = $state('');
  let picker = $state<HTMLInputElement>();

  function way(name: string, on: boolean) {
    const all = entry.handIn.ways.filter((w) => w !== name);
    entry.handIn.ways = on ? [...all, name].sort() : all;
  }

  async function attach(files: FileList | null) {
    trouble = '';
    try {
      for (const f of files ?? []) {
        const kept = await upload(f);
        const named = { sha256: kept.sha256 ?? '', name: kept.name ?? f.name };
        if (has('FILE')) entry.file = named;
        else entry.attached = [...entry.attached.filter((a) => a.sha256 !== named.sha256), named];
      }
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e);
    }
  }
</script>

{#snippet small(name: 'points' | 'attempts' | 'minutes' | 'weight', words: string, hint = '')}
  <label
    ><span class="words">{words}</span><input
      class="entry fig short"
      bind:value={entry[name]}
      inputmode="decimal"
      placeholder={hint}
    /></label
  >
{/snippet}

{#if has('POINTS', 'CATEGORY', 'RUBRIC', 'GROUP_SET', 'ATTEMPTS', 'MINUTES', 'WEIGHT')}
  <div class="small">
    {#if has('POINTS')}{@render small('points', 'Points', 'none')}{/if}
    {#if has('WEIGHT')}{@render small('weight', 'Percent of the grade', 'none')}{/if}
    {#if has('ATTEMPTS')}{@render small('attempts', 'Attempts', 'any')}{/if}
    {#if has('MINUTES')}{@render small('minutes', 'Minutes', 'any')}{/if}
    {#if has('CATEGORY')}
      <label
        ><span class="words">Counts into</span><select class="entry" bind:value={entry.category}>
          <option value="">no grade category</option>
          {#each categories as c (c.key)}<option value={c.key}>{c.title}</option>{/each}
        </select></label
      >
    {/if}
    {#if has('RUBRIC')}
      <label
        ><span class="words">Graded by</span><select class="entry" bind:value={entry.rubric}>
          <option value="">no rubric</option>
          {#each rubrics as r (r.key)}<option value={r.key}>{r.title}</option>{/each}
        </select></label
      >
    {/if}
    {#if has('GROUP_SET')}
      <label
        ><span class="words">Done by</span><select class="entry" bind:value={entry.groupSet}>
          <option value="">each student</option>
          {#each groupSets as g (g.key)}<option value={g.key}>groups of {g.title}</option>{/each}
        </select></label
      >
    {/if}
  </div>
{/if}
{#if has('DUE', 'OPEN', 'WITHIN')}
  <Times bind:entry {item} {nodes} />
{/if}
{#if has('HAND_IN')}
  <fieldset class="line">
    <legend class="words">Handed in as</legend>
    {#each ways as [name, words] (name)}
      <label class="check"
        ><input
          type="checkbox"
          checked={entry.handIn.ways.includes(name)}
          onchange={(e) => way(name, e.currentTarget.checked)}
        />{words}</label
      >
    {/each}
    <label class="check"
      >endings <input
        class="entry fig"
        placeholder="all"
        aria-label="Endings of files that are accepted"
        bind:value={entry.handIn.endings}
      /></label
    >
    <label class="check"
      ><input type="checkbox" bind:checked={entry.handIn.checked} />compared with others' work</label
    >
  </fieldset>
{/if}
{#if has('CRITERIA')}
  <Lines
    bind:rows={entry.criteria}
    label="What is looked at: {total} points in all"
    columns={[
      { name: 'text', words: 'What is looked at', wide: true },
      { name: 'points', words: 'Points' },
      ...(outcomes.length || entry.criteria.some((c) => c.outcome)
        ? [
            {
              name: 'outcome' as const,
              words: 'Outcome that it shows',
              choose: [['', 'shows no outcome'] as [string, string], ...outcomes],
            },
          ]
        : []),
    ]}
    fresh={() => ({ text: '', points: '', outcome: '' })}
    more="Add a line"
  />
{/if}
{#if has('GROUPS')}
  <label
    ><span class="words">Groups, one on each line</span><textarea
      class="entry"
      rows="6"
      bind:value={entry.groups}></textarea></label
  >
{/if}
{#if has('PARAMETERS') && (entry.address || !has('TOOL'))}
  <Lines
    bind:rows={entry.parameters}
    label="Sent along at the launch"
    columns={[
      { name: 'name', words: 'Parameter' },
      { name: 'value', words: 'Value', wide: true },
    ]}
    fresh={() => ({ name: '', value: '' })}
    more="Add a parameter"
  />
{/if}
{#if has('NEW_WINDOW', 'LASTING')}
  <div class="line">
    {#if has('NEW_WINDOW')}
      <label class="check"
        ><input type="checkbox" bind:checked={entry.newWindow} />opens in a window of its own</label
      >
    {/if}
    {#if has('LASTING')}
      <label class="check"
        ><input type="checkbox" bind:checked={entry.oneTerm} />for one term only: it is not carried
        into the next</label
      >
    {/if}
  </div>
{/if}
{#if has('ATTACHED', 'FILE')}
  <fieldset class="files">
    <legend class="words">{has('FILE') ? 'The file' : 'Attachments'}</legend>
    {#if has('FILE')}
      <span>{entry.file?.name ?? item.file?.name}{entry.file ? ', to be saved' : ''}</span>
    {/if}
    {#each entry.attached as f (f.sha256)}
      <span
        >{f.name}
        <button
          type="button"
          class="link"
          onclick={() => (entry.attached = entry.attached.filter((a) => a.sha256 !== f.sha256))}
          >Take off</button
        ></span
      >
    {/each}
    <Act onclick={() => picker?.click()}>{has('FILE') ? 'Another file …' : 'Attach a file …'}</Act>
    <input
      bind:this={picker}
      type="file"
      hidden
      multiple={!has('FILE')}
      aria-label="Files"
      onchange={(e) => void attach(e.currentTarget.files)}
    />
    {#if trouble}<p class="harm" role="alert">{trouble}</p>{/if}
  </fieldset>
{/if}

<style>
  .small,
  .line {
    display: flex;
    gap: 8px 12px;
    align-items: end;
    flex-wrap: wrap;
  }
  .line,
  .files {
    align-items: center;
  }
  .files {
    display: flex;
    gap: 12px;
    flex-wrap: wrap;
  }
  .short {
    width: 84px;
  }
  .check {
    display: flex;
    gap: 5px;
    align-items: center;
  }
  .check .entry {
    width: 120px;
    min-height: 26px;
  }
  select.entry {
    max-width: 220px;
  }
  .harm {
    color: var(--harm);
  }
</style>
