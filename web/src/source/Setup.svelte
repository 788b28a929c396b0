<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Lines from './Lines.svelte';
  import type { Kept } from './editor/kept';
  import { itemAddress } from './editor/kept';
  import type { Entry } from './entry';
  import type { Node } from './tree';

  /** What of a shell is set, and how. */
  let {
    entry = $bindable(),
    nodes,
    upload,
  }: { entry: Entry; nodes: Node[]; upload: (file: File) => Promise<Kept> } = $props();
  type Subject = NonNullable<Schemas['ItemView']['subject']>;
  const subjects: Record<Subject, string> = {
    FRONT_PAGE: 'Front page',
    MENU: 'Menu',
    BANNER: 'Banner',
    GRADE_SCALE: 'Grade scale',
    WEEK_PLACES: 'Week places',
  };
  const values = { MENU: 'Leads to', GRADE_SCALE: 'From, percent', WEEK_PLACES: 'Named also' };
  let picker = $state<HTMLInputElement>();
  let leads = $state('');
  let subject = $derived(entry.subject);

  function choose(key: string) {
    const node = nodes.find((n) => n.key === key);
    if (node) entry.entries = [...entry.entries, { label: node.title, value: itemAddress(key) }];
    leads = '';
  }

  async function banner(files: FileList | null) {
    const f = files?.[0];
    if (!f) return;
    const kept = await upload(f);
    entry.file = { sha256: kept.sha256 ?? '', name: kept.name ?? f.name };
  }

  function weeks() {
    const n = entry.entries.length;
    entry.entries = [
      ...entry.entries,
      ...Array.from({ length: Math.max(1, 15 - n) }, (_, i) => ({
        label: `Week ${n + i + 1}`,
        value: '',
      })),
    ];
  }
</script>

<label
  ><span class="words">It sets</span><select class="entry what" bind:value={entry.subject}>
    <option value="" disabled>choose</option>
    {#each Object.entries(subjects) as [value, words] (value)}<option {value}>{words}</option
      >{/each}
  </select></label
>
{#if subject === 'MENU' || subject === 'GRADE_SCALE' || subject === 'WEEK_PLACES'}
  <Lines
    bind:rows={entry.entries}
    label="{subjects[subject]}, in this order"
    columns={subject === 'WEEK_PLACES'
      ? [{ name: 'label', words: 'Name', wide: true }]
      : [
          { name: 'label', words: 'Name' },
          { name: 'value', words: values[subject], wide: true },
        ]}
    fresh={() => ({ label: '', value: '' })}
    more="Add an entry"
  />
{/if}
{#if subject === 'MENU'}
  <label
    ><span class="words">Add an item of this master</span><select
      class="entry what"
      bind:value={leads}
      onchange={() => choose(leads)}
    >
      <option value="">choose</option>
      {#each nodes as n (n.key)}<option value={n.key}>{n.title}</option>{/each}
    </select></label
  >
{:else if subject === 'WEEK_PLACES'}
  <span><Act onclick={weeks}>Add weeks up to 15</Act></span>
{:else if subject === 'BANNER'}
  <span class="line">
    {entry.file?.name ?? ''}
    <Act onclick={() => picker?.click()}>Choose a picture …</Act>
    <input
      bind:this={picker}
      type="file"
      accept="image/*"
      hidden
      onchange={(e) => void banner(e.currentTarget.files)}
    />
  </span>
{/if}

<style>
  .what {
    max-width: 320px;
  }
  .line {
    display: flex;
    gap: 10px;
    align-items: center;
  }
</style>
