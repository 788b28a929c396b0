<script lang="ts">
  import { ago, exact } from '../marks/words';

  let { at }: { at: string } = $props();
</script>

<time datetime={at} title={exact(at)}>{ago(at)}</time>
