<script lang="ts">
  import type { Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { session } from '../frame/session.svelte';

  /** A rule as it is entered: what it is about, what becomes of it, and where it holds. */
  let {
    e = $bindable(),
    sent = $bindable(),
    masters,
    campuses,
    tryOut,
  }: {
    e: Schemas['RelinkEntry'];
    sent: string;
    masters: Schemas['MasterView'][];
    campuses: Schemas['CampusView'][];
    tryOut: () => void;
  } = $props();
  let admin = $derived(session.me?.role === 'ADMINISTRATOR');
  const one = (x: Event & { currentTarget: HTMLSelectElement }) =>
    x.currentTarget.value ? [x.currentTarget.value] : [];
</script>

<form
  onsubmit={(x) => {
    x.preventDefault();
    tryOut();
  }}
>
  <h2>A new rule</h2>
  <label
    >Addresses like
    <input
      class="entry fig"
      required
      maxlength="500"
      placeholder={'//loads.ropewalk.example{*rest}'}
      bind:value={e.from}
    /></label
  >
  <label
    >become
    <input
      class="entry fig"
      required
      maxlength="500"
      placeholder={'https://ropewalk.example/l{*rest}'}
      bind:value={e.to}
    /></label
  >
  <label
    >and send along (one a line: name=value; name= takes it away)
    <textarea class="entry fig" rows="2" placeholder={'section={section-code}'} bind:value={sent}
    ></textarea></label
  >
  <div class="many">
    <label
      >Master <select
        class="entry"
        value={e.masters[0] ?? ''}
        onchange={(x) => (e.masters = one(x))}
        required={!admin}
      >
        <option value="">{admin ? 'every master' : 'choose one'}</option>
        {#each masters as m (m.id)}<option value={m.id}>{m.code} {m.title}</option>{/each}
      </select></label
    >
    <label
      >Term <select class="entry" value={e.terms[0] ?? ''} onchange={(x) => (e.terms = one(x))}>
        <option value="">every term</option>
        {#each session.terms as t (t.id)}<option value={t.id}>{t.title}</option>{/each}
      </select></label
    >
    <label
      >Campus <select
        class="entry"
        value={e.campuses[0] ?? ''}
        onchange={(x) => (e.campuses = one(x))}
      >
        <option value="">every campus</option>
        {#each campuses as c (c.sourcedId)}<option value={c.sourcedId}>{c.name}</option>{/each}
      </select></label
    >
    <label>From the day <input class="entry" type="date" bind:value={e.fromDay} /></label>
    <label>Until the day <input class="entry" type="date" bind:value={e.untilDay} /></label>
  </div>
  <p class="quiet">
    {'{name}'} stands for what is between two of / ? # &amp;, {'{*rest}'} for all the rest. Values of
    the section, such as {'{section-code}'} and {'{term}'}, can be filled in.
  </p>
  <Act type="submit">Try it on all links of {session.term?.title ?? 'the term'}</Act>
</form>

<style>
  form {
    display: grid;
    gap: 8px;
    justify-items: start;
    max-width: 720px;
    border-top: 1px solid var(--line);
    padding-top: 10px;
  }
  label {
    display: grid;
    gap: 2px;
    width: 100%;
    font-size: 13px;
    color: var(--ink-2);
  }
  label .entry {
    color: var(--ink);
    width: 100%;
    max-width: none;
  }
  .many {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 8px;
    width: 100%;
  }
</style>
