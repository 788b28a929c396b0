<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import QuestionEntry from './QuestionEntry.svelte';
  import { sendFile } from './editor/kept';
  import {
    copyOf,
    newGroup,
    newQuestion,
    sum,
    types,
    words,
    type Asked,
    type Stretch,
    type Type,
  } from './questions';

  /** Questions of a quiz or a bank, one by one; each change is saved by itself and can be undone. */
  let {
    master,
    item,
    saved,
  }: { master: string; item: Schemas['ItemView']; saved: () => Promise<void> } = $props();
  let parts = $state.raw<Stretch[]>([]);
  let banks = $state.raw<Schemas['Bank'][]>([]);
  let open = $state('');
  let trouble = $state.raw<unknown>(null);
  let ready = $state(false);
  let bank = $state('');
  const seen = untrack(() => item.aspects.WORDING);
  const path = { id: untrack(() => master), key: untrack(() => item.key) };

  void got(
    api.GET('/api/masters/{id}/versions/{number}/items/{key}/questions', {
      params: { path: { ...path, number: 0 } },
    }),
  ).then(
    (q) => {
      parts = q.asked.parts;
      banks = q.banks;
      ready = true;
    },
    (e) => (trouble = e),
  );

  let total = $derived(sum(parts));
  const numbers = $derived.by(() => {
    const all = new Map<string, number>();
    for (const p of parts) for (const q of p.questions) all.set(q.id, all.size + 1);
    return all;
  });

  /** Saves these; where that is refused, nothing has changed. */
  async function keep(next: Stretch[]) {
    trouble = null;
    try {
      const asked = { parts: next.filter((p) => p.group || p.questions.length) };
      await got(
        api.PUT('/api/masters/{id}/draft/items/{key}/questions', {
          params: { path },
          body: { asked, seen },
        }),
      );
      open = '';
      await saved();
    } catch (e) {
      trouble = e;
    }
  }

  const mapped = (f: (q: Asked) => Asked[]) =>
    parts.map((p) => ({ ...p, questions: p.questions.flatMap(f) }));

  function save(q: Asked) {
    const there = numbers.has(q.id);
    if (there) return keep(mapped((x) => [x.id === q.id ? q : x]));
    const last = parts.at(-1);
    return keep(
      last && !last.group
        ? [...parts.slice(0, -1), { ...last, questions: [...last.questions, q] }]
        : [...parts, { questions: [q] }],
    );
  }

  let fresh = $state.raw<Asked | null>(null);
  function add(type: string) {
    if (!type) return;
    fresh = newQuestion(type as Exclude<Type, 'OTHER'>);
    open = fresh.id;
  }

  function move(q: Asked, by: number) {
    const next = parts.map((p) => {
      const at = p.questions.findIndex((x) => x.id === q.id);
      if (at < 0 || at + by < 0 || at + by >= p.questions.length) return p;
      const all = p.questions.filter((x) => x.id !== q.id);
      all.splice(at + by, 0, q);
      return { ...p, questions: all };
    });
    void keep(next);
  }

  function draw(at: number, change: Partial<Schemas['DrawnGroup']>) {
    void keep(parts.map((p, i) => (i === at ? { ...p, group: { ...p.group!, ...change } } : p)));
  }

  function drawFrom() {
    const of = banks.find((b) => b.ident === bank);
    if (of) void keep([...parts, newGroup(of.ident, of.title)]);
    bank = '';
  }
  const points = (n: number) => `${n} ${n === 1 ? 'point' : 'points'}`;
</script>

<div class="questions">
  <div class="head">
    <b>{many(total.asked, 'question')}, {points(total.points)}</b>
    <select
      class="entry"
      aria-label="Add a question"
      value=""
      onchange={(e) => (add(e.currentTarget.value), (e.currentTarget.value = ''))}
    >
      <option value="">Add a question …</option>
      {#each Object.entries(types) as [t, w] (t)}<option value={t}>{w}</option>{/each}
    </select>
    {#if banks.length}
      <select class="entry" aria-label="Draw from a bank" bind:value={bank} onchange={drawFrom}>
        <option value="">Draw from a bank …</option>
        {#each banks as b (b.key)}<option value={b.ident}
            >{b.title}, {many(b.questions, 'question')}</option
          >{/each}
      </select>
    {/if}
  </div>
  <Trouble of={trouble} />
  {#if ready && !parts.length && !fresh}
    <p class="quiet">
      It asks nothing yet. Add a question{banks.length ? ', or draw from a bank' : ''}.
    </p>
  {/if}
  {#each parts as p, at (p.group?.id ?? at)}
    {#if p.group}
      {@const g = p.group}
      <div class="group">
        <b class="cut">{g.title || 'A group'}</b>
        <label
          >draws <input
            class="entry fig"
            aria-label="Questions drawn"
            value={g.draw ?? ''}
            placeholder="all"
            inputmode="numeric"
            onchange={(e) =>
              draw(at, { draw: e.currentTarget.value ? Number(e.currentTarget.value) : undefined })}
          /></label
        >
        <label
          >points each <input
            class="entry fig"
            value={g.pointsEach ?? ''}
            placeholder="own"
            inputmode="decimal"
            onchange={(e) => draw(at, { pointsEach: e.currentTarget.value || undefined })}
          /></label
        >
        {#if g.bank}<span class="quiet cut"
            >from {banks.find((b) => b.ident === g.bank)?.title ?? 'a bank that is not here'}</span
          >{/if}
        <button class="link" onclick={() => void keep(parts.filter((_, i) => i !== at))}
          >Take out</button
        >
      </div>
    {/if}
    <ol>
      {#each p.questions as q (q.id)}
        <li>
          <span class="fig n">{numbers.get(q.id)}</span>
          {#if open === q.id}
            <QuestionEntry
              question={q}
              upload={(f) => sendFile(master, f)}
              save={(x) => void save(x)}
              cancel={() => (open = '')}
            />
          {:else}
            <button
              class="ask cut"
              disabled={q.kept}
              title={q.kept ? 'Of a type that can only be kept as it came' : ''}
              onclick={() => ((fresh = null), (open = q.id))}
              >{words(q.html) || q.title || '…'}</button
            >
            <span class="quiet about"
              >{q.kept ? 'another type' : types[q.type as keyof typeof types]}, {points(
                Number(q.points),
              )}</span
            >
            <button aria-label="Up, question {numbers.get(q.id)}" onclick={() => move(q, -1)}
              >↑</button
            >
            <button aria-label="Down, question {numbers.get(q.id)}" onclick={() => move(q, 1)}
              >↓</button
            >
            <button
              class="link"
              aria-label="Copy question {numbers.get(q.id)}"
              onclick={() =>
                void keep(mapped((x) => (x.id === q.id && !q.kept ? [x, copyOf(x)] : [x])))}
              >Copy</button
            >
            <button
              class="link"
              aria-label="Take out question {numbers.get(q.id)}"
              onclick={() => void keep(mapped((x) => (x.id === q.id ? [] : [x])))}>Take out</button
            >
          {/if}
        </li>
      {/each}
    </ol>
  {/each}
  {#if fresh && open === fresh.id}
    <QuestionEntry
      question={fresh}
      upload={(f) => sendFile(master, f)}
      save={(x) => void save(x)}
      cancel={() => (fresh = null)}
    />
  {/if}
</div>

<style>
  .questions {
    padding: 12px 20px;
    overflow: auto;
    min-height: 0;
    background: var(--raise);
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  .head,
  .group {
    display: flex;
    gap: 12px;
    align-items: center;
    flex-wrap: wrap;
  }
  .head .entry {
    max-width: 220px;
  }
  .group {
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
  .group .entry {
    width: 60px;
    min-height: 26px;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: baseline;
    min-height: 28px;
    border-bottom: 1px solid var(--line-soft);
  }
  .n {
    width: 26px;
    text-align: right;
    color: var(--ink-3);
    flex: none;
  }
  .ask {
    flex: 1;
    text-align: left;
    cursor: pointer;
  }
  .ask:hover:not(:disabled) {
    color: var(--do);
  }
  .about {
    flex: none;
  }
  button {
    cursor: pointer;
  }
  button {
    min-width: 24px;
    min-height: 24px;
  }
</style>
