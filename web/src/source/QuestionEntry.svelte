<script lang="ts">
  import { untrack } from 'svelte';
  import Act from '../frame/Act.svelte';
  import TextEditor from './editor/TextEditor.svelte';
  import type { Kept } from './editor/kept';
  import { chosen, newAnswer, types, words, written, type Asked } from './questions';

  /** One question, written. */
  let {
    question,
    upload,
    save,
    cancel,
  }: {
    question: Asked;
    upload: (file: File) => Promise<Kept>;
    save: (q: Asked) => void;
    cancel: () => void;
  } = $props();
  let q = $state(untrack(() => structuredClone($state.snapshot(question)) as Asked));
  let notes = $state(untrack(() => Object.values(question.notes).some(Boolean)));
  const kinds = [
    ['right', 'When right'],
    ['wrong', 'When wrong'],
    ['always', 'After any answer'],
    ['hint', 'Hint'],
    ['solution', 'Model answer'],
  ] as const;
  let one = $derived(q.type === 'MULTIPLE_CHOICE' || q.type === 'TRUE_FALSE');
  /** Answers that are more than plain words are written as texts. */
  const rich = (html: string) => /<(?!\/?p>)[a-z]/i.test(html);
  const plain = (text: string) => {
    const p = document.createElement('p');
    p.textContent = text;
    return text ? p.outerHTML : '';
  };

  function right(i: number, on: boolean) {
    q.answers.forEach((a, n) => {
      if (n === i) a.percent = on ? '100' : '0';
      else if (one) a.percent = '0';
    });
    if (!one) share();
  }

  /** Of several right ones each earns its part. */
  function share() {
    const all = q.answers.filter((a) => Number(a.percent) > 0);
    const each = Math.floor(10000 / Math.max(1, all.length)) / 100;
    all.forEach(
      (a, i) => (a.percent = String(i ? each : +(100 - each * (all.length - 1)).toFixed(2))),
    );
  }
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    save($state.snapshot(q) as Asked);
  }}
>
  <p class="quiet">{q.type === 'OTHER' ? 'another type' : types[q.type]}</p>
  <TextEditor html={q.html} label="What is asked" low {upload} change={(html) => (q.html = html)} />
  {#if chosen(q.type) || written(q.type)}
    <fieldset>
      <legend class="words">{written(q.type) ? 'Taken as right' : 'Answers'}</legend>
      {#each q.answers as a, i (a.id)}
        <div class="answer">
          {#if chosen(q.type)}
            <input
              type={one ? 'radio' : 'checkbox'}
              name="right-{q.id}"
              checked={Number(a.percent) > 0}
              aria-label="Answer {i + 1} is right"
              onchange={(e) => right(i, e.currentTarget.checked)}
            />
          {/if}
          {#if chosen(q.type) && rich(a.html)}
            <TextEditor
              html={a.html}
              label="Answer {i + 1}"
              low
              {upload}
              change={(html) => (a.html = html)}
            />
          {:else}
            <input
              class="entry wide"
              aria-label="Answer {i + 1}"
              value={chosen(q.type) ? words(a.html) : a.html}
              oninput={(e) =>
                (a.html = chosen(q.type) ? plain(e.currentTarget.value) : e.currentTarget.value)}
            />
          {/if}
          <label class="share"
            ><input class="entry fig" aria-label="Percent, answer {i + 1}" bind:value={a.percent} />
            %</label
          >
          {#if written(q.type)}
            <label class="share"
              ><input type="checkbox" bind:checked={a.exactCase} />letters as typed</label
            >
          {/if}
          <input
            class="entry"
            placeholder="Said to who gives it"
            aria-label="Said to who gives answer {i + 1}"
            value={words(a.feedback)}
            disabled={rich(a.feedback)}
            oninput={(e) => (a.feedback = plain(e.currentTarget.value))}
          />
          {#if q.type !== 'TRUE_FALSE'}
            <button
              type="button"
              class="link"
              aria-label="Take out answer {i + 1}"
              onclick={() => (q.answers = q.answers.filter((x) => x.id !== a.id))}>Take out</button
            >
          {/if}
        </div>
      {/each}
      {#if q.type !== 'TRUE_FALSE'}
        <Act onclick={() => (q.answers = [...q.answers, newAnswer(q)])}>Add an answer</Act>
      {/if}
    </fieldset>
  {/if}
  <div class="line">
    <label>points <input class="entry fig" bind:value={q.points} inputmode="decimal" /></label>
    {#if chosen(q.type) && q.type !== 'TRUE_FALSE'}
      <label><input type="checkbox" bind:checked={q.shuffled} />answers in any order</label>
    {/if}
    <label><input type="checkbox" bind:checked={notes} />something said afterwards</label>
  </div>
  {#if notes}
    {#each kinds as [name, label] (name)}
      <label
        ><span class="words">{label}</span><input
          class="entry"
          value={words(q.notes[name] ?? '')}
          disabled={rich(q.notes[name] ?? '')}
          oninput={(e) => (q.notes[name] = plain(e.currentTarget.value))}
        /></label
      >
    {/each}
  {/if}
  <div class="line">
    <Act main type="submit">Save the question</Act>
    <Act onclick={cancel}>Cancel</Act>
  </div>
</form>

<style>
  form {
    flex: 1;
    display: grid;
    gap: 8px;
    padding: 8px 0 12px;
    min-width: 0;
  }
  fieldset {
    display: grid;
    gap: 4px;
    justify-items: start;
  }
  .answer {
    display: flex;
    gap: 8px;
    align-items: center;
    width: 100%;
  }
  .answer > .entry {
    flex: 1;
    min-width: 0;
    width: auto;
  }
  .answer > .wide {
    flex: 2;
    min-width: 120px;
  }
  .share,
  .line label {
    display: flex;
    gap: 5px;
    align-items: center;
    flex: none;
  }
  .share .entry {
    width: 58px;
  }
  .line {
    display: flex;
    gap: 14px;
    align-items: center;
  }
  .line .entry {
    width: 70px;
  }
</style>
