<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import type { Group, HandOver } from './handovers';

  /** Day, owner and note of the hand-overs whose sections are in hand. */
  let { line, chosen, begun }: { line: Group; chosen: HandOver[]; begun: () => void } = $props();
  const same = (of: (h: HandOver) => string) =>
    untrack(() => (chosen.every((h) => of(h) === of(chosen[0])) ? of(chosen[0]) : ''));
  let due = $state(same((h) => (h.dueSet ? (h.due ?? '') : '')));
  let owner = $state(same((h) => h.ownerMail));
  let note = $state(same((h) => h.note));
  let trouble = $state.raw<unknown>(null);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      await got(
        api.PUT('/api/hand-overs', {
          body: {
            kind: line.kind,
            host: line.host,
            sections: chosen.map((h) => h.section),
            due: due || undefined,
            owner,
            note,
          },
        }),
      );
      trouble = null;
      begun();
    } catch (e) {
      trouble = e;
    }
  }
</script>

<form onsubmit={keep}>
  <h2>For {many(chosen.length, 'section')} in hand</h2>
  <label
    >Due; empty: the day before the term begins <input
      class="entry"
      type="date"
      bind:value={due}
    /></label
  >
  <label
    >Owner, by mail address
    <input
      class="entry"
      type="email"
      placeholder="whose it is by itself"
      bind:value={owner}
    /></label
  >
  <label>Note <input class="entry" maxlength="1000" bind:value={note} /></label>
  <Trouble of={trouble} />
  <Act type="submit">Set them</Act>
</form>

<style>
  form {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  label {
    display: grid;
    gap: 2px;
    font-size: 13px;
    width: 100%;
  }
  label .entry {
    width: 100%;
    max-width: none;
  }
</style>
