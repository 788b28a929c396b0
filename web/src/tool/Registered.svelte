<script lang="ts">
  import type { Schemas } from '../api/client';

  /** A registration: what the tool's maker gave, and what the tool has to know of us. */
  let {
    client = $bindable(),
    of = $bindable(),
    issuer,
  }: { client: string; of: Schemas['EnteredRegistration']; issuer: string } = $props();
</script>

<label
  >Client id <input
    class="entry fig"
    required
    maxlength="255"
    autocomplete="off"
    spellcheck="false"
    bind:value={client}
  /></label
>
<label
  >Deployment id; {'{campus}'} or {'{section}'} where it has one for each
  <input class="entry fig" required maxlength="400" spellcheck="false" bind:value={of.deployment} />
</label>
<label>Login begins at <input class="entry fig" type="url" required bind:value={of.login} /></label>
<label
  >Launches go to, one on each line
  <textarea
    class="entry fig"
    rows="2"
    required
    spellcheck="false"
    value={of.launches.join('\n')}
    onchange={(x) => (of.launches = x.currentTarget.value.split(/\s+/).filter(Boolean))}></textarea>
</label>
<label>Its key set <input class="entry fig" type="url" required bind:value={of.keySet} /></label>
<details>
  <summary>What the tool has to know of us</summary>
  <p class="quiet">
    Under this client it is launched by two: your learning platform, and Zephyrmist, which tests
    launches and picks resources.
  </p>
  <dl>
    <dt>Issuer</dt>
    <dd class="fig">{issuer}</dd>
    <dt>Sign-in</dt>
    <dd class="fig">{issuer}/api/lti/authorize</dd>
    <dt>Key set</dt>
    <dd class="fig">{issuer}/api/lti/keys</dd>
  </dl>
</details>

<style>
  textarea {
    height: auto;
  }
  details {
    font-size: 13px;
  }
  summary {
    cursor: pointer;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 2px 10px;
    padding-top: 4px;
  }
  dt {
    color: var(--ink-2);
  }
  dd {
    overflow-wrap: anywhere;
    user-select: all;
  }
</style>
