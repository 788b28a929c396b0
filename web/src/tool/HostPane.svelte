<script lang="ts">
  import { place } from '../frame/place.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { session } from '../frame/session.svelte';
  import Tie from '../marks/Tie.svelte';
  import { many } from '../marks/words';
  import AskApproval from './AskApproval.svelte';
  import ConnectForm from './ConnectForm.svelte';
  import MendTies from './MendTies.svelte';
  import TaskFindings from './TaskFindings.svelte';
  import ToolSection from './ToolSection.svelte';
  import {
    byReason,
    reasonWords,
    stageWords,
    wayWords,
    type Cell,
    type HostBand,
    type Tools,
  } from './tools';

  /** The chosen host beside the picture: what is known of it, and what can be entered. */
  let {
    tools,
    host,
    chosen,
    begun,
  }: { tools: Tools; host?: HostBand; chosen: Cell[]; begun: () => void } = $props();

  let admin = $derived(session.me?.role === 'ADMINISTRATOR');
  let all = $derived(host ? tools.connections.filter((c) => c.hosts.includes(host.host)) : []);
  let at = $derived(host?.cells.find((c) => c.section.id === place.get('at')));
  let editing = $derived(place.get('enter'));
  let wrong = $derived(chosen.filter((c) => c.state.standing === 'TIED_WRONGLY'));
  let edited = $derived(all.find((c) => c.id === editing));
  const dates = {
    SENT_ONCE: 'sent once, then each side has its own',
    SHELL_LEADS: 'the shell leads',
    TOOL_LEADS: 'the tool leads',
  };
  const scope = (c: (typeof all)[number]) =>
    c.level === 'COLLEGE' ? 'the whole college' : `${c.level.toLowerCase()} ${c.scopeOf}`;
  const legend = [
    ['none', 'Two loose ends: no connection'],
    ['waits', 'Waits for somebody, or for the tool'],
    ['wrong', 'Tied, but to the wrong course'],
    ['open', 'Tied; somebody has to open it once'],
    ['works', 'Tied fast: works'],
  ] as const;
  onEscape(() => {
    if (editing) place.set({ enter: '' });
    else if (place.get('mend')) place.set({ mend: '' });
    else if (place.get('at')) place.set({ at: '' });
    else if (host) place.set({ host: '' });
    else return false;
    return true;
  });
</script>

<aside class="aside">
  {#if host && (edited || editing === 'new') && admin}
    {#key editing}
      <ConnectForm {tools} {host} {chosen} connection={edited} {begun} />
    {/key}
  {:else if host && place.get('mend') && wrong.length}
    {#key wrong.length}<MendTies {host} cells={wrong} {begun} />{/key}
  {:else if host && at}
    <ToolSection cell={at} {tools} {begun} />
  {:else if host}
    <section>
      <h2>{host.name}</h2>
      {#if host.name !== host.host}<p class="fig quiet">{host.host}</p>{/if}
      <ul class="plain">
        {#each byReason(host.cells) as [reason, cells] (reason)}
          <li class="sum"><b class="fig">{cells.length}</b><span>{reasonWords[reason]}</span></li>
        {/each}
      </ul>
      {#each all as c (c.id)}
        <dl>
          <dt>Connection</dt>
          <dd>{c.name}</dd>
          <dt>Serves</dt>
          <dd>{scope(c)}{c.terms.length ? `, ${many(c.terms.length, 'term')}` : ''}</dd>
          <dt>Way</dt>
          <dd>{wayWords[c.way]}{c.way !== 'OPEN' && !c.entered ? ', not entered yet' : ''}</dd>
          <dt>Asks for</dt>
          <dd>{c.stages.map((s) => stageWords[s]).join(', ') || 'nothing'}</dd>
          <dt>Sends</dt>
          <dd>
            {[c.sendsName && 'name', 'role', c.sendsMail && 'mail address']
              .filter(Boolean)
              .join(', ')}
          </dd>
          <dt>Grades</dt>
          <dd>{c.grades ? 'come back' : 'do not come back'}</dd>
          <dt>Dates</dt>
          <dd>{dates[c.dates]}</dd>
          {#if c.owner}<dt>Owner</dt>
            <dd>{c.owner}</dd>{/if}
          {#if c.expires}<dt>Valid until</dt>
            <dd>{c.expires}</dd>{/if}
          <dt>Approved</dt>
          <dd>{c.approved ? 'yes' : c.stages.includes('APPROVAL') ? 'not yet' : 'need not be'}</dd>
        </dl>
        {#if admin}
          <p><button class="link" onclick={() => place.set({ enter: c.id })}>Change it</button></p>
        {/if}
      {:else}
        <p class="quiet">Nobody has entered a connection for this host.</p>
      {/each}
      {#if admin}
        <p>
          <button class="link" onclick={() => place.set({ enter: 'new' })}
            >{all.length ? 'Enter another connection' : 'Enter its connection'}</button
          >
        </p>
      {/if}
      {#if !all.some((c) => c.approved) && (!all.length || all.some( (c) => c.stages.includes('APPROVAL') ))}
        <AskApproval host={host.host} asked={host.asked} sections={host.cells.length} {begun} />
      {/if}
    </section>
    {#key host.host}<TaskFindings host={host.host} name={host.name} />{/key}
    {#if chosen.length}
      <section>
        <h2>In hand</h2>
        <ul class="plain rows">
          {#each chosen.slice(0, 12) as c (c.section.id)}
            <li>
              <button class="link fig" onclick={() => place.set({ at: c.section.id })}
                >{c.section.code}</button
              >
              <span class="quiet cut">{reasonWords[c.state.reason]}</span>
            </li>
          {/each}
        </ul>
        {#if chosen.length > 12}<p class="faint">and {chosen.length - 12} more</p>{/if}
      </section>
    {/if}
  {:else}
    <section>
      <h2>Every host of a tool</h2>
      <p class="quiet">
        The sections stand over the stage where their links are stuck. Where a host has no such
        stage, the column is hatched. A number takes its sections in hand.
      </p>
    </section>
  {/if}
  {#if !editing}
    <section class="legend" aria-label="Legend">
      {#each legend as [kind, words] (kind)}<Tie {kind} size={16} /><span>{words}</span>{/each}
    </section>
  {/if}
</aside>

<style>
  aside {
    display: flex;
    flex-direction: column;
    gap: 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 88px 1fr;
    row-gap: 3px;
    font-size: 13.5px;
    margin: 10px 0 6px;
  }
  dt {
    color: var(--ink-3);
  }
  .plain {
    list-style: none;
    margin: 8px 0 0;
    padding: 0;
  }
  .sum {
    display: grid;
    grid-template-columns: 32px 1fr;
  }
  .rows li {
    display: flex;
    gap: 8px;
    min-width: 0;
  }
  .legend {
    display: grid;
    grid-template-columns: 24px 1fr;
    row-gap: 3px;
    align-items: center;
    color: var(--ink-2);
    font-size: 13px;
    margin-top: auto;
    border-top: 1px solid var(--line);
    padding-top: 10px;
  }
</style>
