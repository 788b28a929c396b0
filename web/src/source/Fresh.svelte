<script lang="ts">
  import { got } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';

  /** Whether a source is taken anew each term, and never from a shell of the term before. */
  let {
    on,
    set,
    changed,
  }: {
    on: boolean;
    set: (on: boolean) => Parameters<typeof got>[0];
    changed: () => void;
  } = $props();
  let trouble = $state.raw<unknown>(null);

  async function turn(to: boolean) {
    try {
      await got(set(to));
      trouble = null;
    } catch (e) {
      trouble = e;
    }
    changed();
  }
</script>

<label
  ><input type="checkbox" checked={on} onchange={(e) => void turn(e.currentTarget.checked)} />
  Taken fresh each term: a master made from last term’s shell leaves it out</label
>
<Trouble of={trouble} />

<style>
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 13px;
  }
</style>
