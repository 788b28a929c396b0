<script lang="ts">
  // The mark of Zephyrmist: a vane over mist.
</script>

<svg viewBox="0 0 22 22" width="22" height="22" aria-hidden="true">
  <circle cx="7" cy="15" r="4" fill="var(--do)" />
  <path d="M10 12L19 3" stroke="var(--do)" stroke-width="2" />
  <path d="M19 3l3 3M15.6 6.4l3 3" stroke="var(--do)" stroke-width="2" />
  <path
    d="M1 20.5c3-1.6 5 1.2 8 0s5-1.2 8 0"
    fill="none"
    stroke="var(--ink-3)"
    stroke-width="1.2"
  />
</svg>
