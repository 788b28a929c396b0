<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A button that says what it does to what. */
  let {
    main = false,
    disabled = false,
    type = 'button',
    title,
    onclick,
    children,
  }: {
    main?: boolean;
    disabled?: boolean;
    type?: 'button' | 'submit';
    title?: string;
    onclick?: () => void;
    children: Snippet;
  } = $props();
</script>

<Button class="act {main ? 'do' : ''}" {type} {disabled} {title} {onclick}
  >{@render children()}</Button
>
