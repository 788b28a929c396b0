<script lang="ts">
  import { many } from '../marks/words';

  /**
   * @param shells of the sections that are here, how many have one
   */
  let { sections, shells, masters }: { sections: number; shells: number; masters: number } =
    $props();
</script>

<section>
  <h2>Four steps to the first delivery</h2>
  <ol>
    <li class:done={sections > 0}>
      <b>Bring in your sections.</b> A OneRoster bundle tells Zephyrmist which sections there are
      and who teaches them.
      {#if sections}<span class="quiet">{many(sections, 'section')}.</span>
      {:else}<a class="link" href="/college">Take in a roster</a>{/if}
    </li>
    <li class:done={shells > 0}>
      <b>Name the platform that holds their shells.</b> Shells find their sections by the section’s
      sourcedId.
      {#if shells}<span class="quiet">{shells} of {many(sections, 'section')} have a shell.</span>
      {:else}<a class="link" href="/college">Go to the college</a>{/if}
    </li>
    <li class:done={masters > 0}>
      <b>Take in a cartridge and make it a master.</b> Look inside, drop what you do not want.
      <a class="link" href="/sources">Go to Sources</a>
    </li>
    <li>
      <b>Freeze version 1 and deliver it.</b> Then this page shows which section has which version.
    </li>
  </ol>
</section>

<style>
  section {
    padding: 24px 0;
    max-width: 62ch;
  }
  ol {
    margin-top: 10px;
    list-style: decimal;
    padding-left: 20px;
    display: grid;
    gap: 10px;
  }
  .done b {
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }
</style>
