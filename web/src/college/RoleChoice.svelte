<script lang="ts">
  import type { Schemas } from '../api/client';

  let { role = $bindable() }: { role: Schemas['NewPerson']['role'] } = $props();
</script>

<label>
  <span class="words">Role</span>
  <select class="entry" bind:value={role}>
    <option value="COORDINATOR">coordinator</option>
    <option value="DESIGNER">designer</option>
    <option value="INSTRUCTOR">instructor</option>
    <option value="ADMINISTRATOR">administrator</option>
  </select>
</label>
