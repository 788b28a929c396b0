<script lang="ts">
  import type { Schemas } from '../api/client';
  import { session } from '../frame/session.svelte';

  /** Whom a connection serves. */
  let {
    e = $bindable(),
    hosts = $bindable(),
    courses,
  }: { e: Schemas['ConnectionEntry']; hosts: string; courses: string[] } = $props();
</script>

<fieldset>
  <legend>Whom it serves</legend>
  <label
    >Scope
    <select class="entry" bind:value={e.level} onchange={() => (e.scopeOf = '')}>
      <option value="COLLEGE">the whole college</option>
      <option value="CAMPUS">one campus</option>
      <option value="COURSE">one course</option>
      <option value="SECTION">one section</option>
    </select></label
  >
  {#if e.level === 'COURSE'}
    <label
      >Course <select class="entry" required bind:value={e.scopeOf}>
        {#each courses as c (c)}<option>{c}</option>{/each}
      </select></label
    >
  {:else if e.level !== 'COLLEGE'}
    <label>Its id in the roster <input class="entry fig" required bind:value={e.scopeOf} /></label>
  {/if}
  <label
    >Term
    <select
      class="entry"
      value={e.terms[0] ?? ''}
      onchange={(x) => (e.terms = x.currentTarget.value ? [x.currentTarget.value] : [])}
    >
      <option value="">every term</option>
      {#each session.terms as t (t.id)}<option value={t.id}>{t.title}</option>{/each}
    </select></label
  >
  <label>Hosts <input class="entry fig" required bind:value={hosts} /></label>
</fieldset>
