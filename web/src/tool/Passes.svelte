<script lang="ts">
  import type { Schemas } from '../api/client';

  /** What passes between shell and tool, until when, and who answers for it. */
  let {
    e = $bindable(),
    exchanged,
  }: {
    e: Schemas['ConnectionEntry'];
    /** Whether another secret is entered for one that stands in shells. */
    exchanged: boolean;
  } = $props();
</script>

<fieldset>
  <legend>What passes between</legend>
  <label class="tick"><input type="checkbox" bind:checked={e.sendsName} /> sends names</label>
  <label class="tick"
    ><input type="checkbox" bind:checked={e.sendsMail} /> sends mail addresses</label
  >
  <label class="tick"><input type="checkbox" bind:checked={e.grades} /> grades come back</label>
  <label
    >Dates <select class="entry" bind:value={e.dates}>
      <option value="SENT_ONCE">sent once, then apart</option>
      <option value="SHELL_LEADS">the shell leads</option>
      <option value="TOOL_LEADS">the tool leads</option>
    </select></label
  >
  <label>Owner <input class="entry" maxlength="200" bind:value={e.owner} /></label>
  <label>Valid until <input class="entry" type="date" bind:value={e.expires} /></label>
  {#if exchanged || e.bothUntil}
    <label
      >The secret before is taken too until
      <input class="entry" type="date" bind:value={e.bothUntil} /></label
    >
  {/if}
  <label class="tick"><input type="checkbox" bind:checked={e.approved} /> approved for use</label>
</fieldset>
