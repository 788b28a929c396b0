<script lang="ts">
  import type { Editor } from '@tiptap/core';
  import { addColumn, addRow, dropColumn, dropRow, inTable, newTable } from './table';

  /** What can be done with the words at the cursor. */
  let {
    editor,
    stamp,
    source,
    values,
    link,
    file,
  }: {
    editor: Editor | null;
    stamp: number;
    source: boolean;
    values: { name: string; words: string }[];
    link: () => void;
    file: (files: File[]) => void;
  } = $props();

  const styles = ['p', 'h2', 'h3', 'h4', 'quote', 'pre'] as const;
  const words = {
    p: 'Text',
    h2: 'Heading',
    h3: 'Smaller heading',
    h4: 'Smallest heading',
    quote: 'Quotation',
    pre: 'As typed',
  };
  let picker: HTMLInputElement;

  const active = (name: string, attrs?: object) => (void stamp, !!editor?.isActive(name, attrs));
  let style = $derived.by(() => {
    void stamp;
    if (!editor) return 'p';
    for (const level of [2, 3, 4]) if (editor.isActive('heading', { level })) return 'h' + level;
    if (editor.isActive('pre')) return 'pre';
    return editor.isActive('blockquote') ? 'quote' : 'p';
  });
  let table = $derived((void stamp, !!editor && inTable(editor)));

  function restyle(to: string) {
    if (!editor) return;
    const chain = editor.chain().focus();
    if (style === 'quote') chain.lift('blockquote');
    if (to === 'quote') chain.setNode('paragraph').wrapIn('blockquote').run();
    else if (to.startsWith('h')) chain.setNode('heading', { level: Number(to[1]) }).run();
    else chain.setNode(to === 'pre' ? 'pre' : 'paragraph').run();
  }

  function mark(name: 'bold' | 'italic') {
    editor?.chain().focus().toggleMark(name).run();
  }

  function list(name: 'bulletList' | 'orderedList') {
    editor?.chain().focus().toggleList(name, 'listItem').run();
  }

  function insert(e: Event & { currentTarget: HTMLSelectElement }) {
    const what = e.currentTarget.value;
    e.currentTarget.value = '';
    if (!editor) return;
    const chain = editor.chain().focus();
    const chosen = editor.state.doc.textBetween(
      editor.state.selection.from,
      editor.state.selection.to,
      ' ',
    );
    if (what === 'blank') {
      const attrs = { words: chosen || 'to be filled in' };
      chain.insertContent({ type: 'blank', attrs }).run();
    } else if (what.startsWith('note:')) {
      const kept = { class: 'z-' + what.slice(5) };
      if (editor.isActive('box', { kept })) chain.lift('box').run();
      else chain.wrapIn('box', { tag: 'aside', kept }).run();
    } else if (what === 'table') {
      newTable(editor, 3, 3);
    } else if (what === 'line') {
      chain.setHorizontalRule().run();
    } else {
      const of = values.find((v) => v.name === what)!;
      const attrs = { kept: { class: 'z-value', value: of.name }, words: of.words };
      chain.insertContent({ type: 'value', attrs }).run();
    }
  }
</script>

<span class="tools" role="toolbar" aria-label="What can be done with the text" class:off={source}>
  <select
    class="entry"
    aria-label="Style"
    value={style}
    disabled={source || !editor}
    onchange={(e) => restyle(e.currentTarget.value)}
  >
    {#each styles as s (s)}<option value={s}>{words[s]}</option>{/each}
  </select>
  <button
    type="button"
    disabled={source}
    aria-pressed={active('bold')}
    title="Ctrl B"
    onclick={() => mark('bold')}><b>Bold</b></button
  >
  <button
    type="button"
    disabled={source}
    aria-pressed={active('italic')}
    title="Ctrl I"
    onclick={() => mark('italic')}><i>Italic</i></button
  >
  <button
    type="button"
    disabled={source}
    aria-pressed={active('bulletList')}
    onclick={() => list('bulletList')}>List</button
  >
  <button
    type="button"
    disabled={source}
    aria-pressed={active('orderedList')}
    onclick={() => list('orderedList')}>Numbered</button
  >
  <button type="button" disabled={source} aria-pressed={active('link')} onclick={link}>Link</button>
  <button type="button" disabled={source} onclick={() => picker.click()}>Picture, file</button>
  <input
    bind:this={picker}
    type="file"
    multiple
    hidden
    onchange={() => (file([...(picker.files ?? [])]), (picker.value = ''))}
  />
  <select class="entry" aria-label="Insert" disabled={source || !editor} onchange={insert}>
    <option value="">Insert …</option>
    {#if values.length}
      <optgroup label="A value of each section">
        {#each values as v (v.name)}<option value={v.name}>{v.words}</option>{/each}
      </optgroup>
    {/if}
    <option value="blank">a blank for the instructor</option>
    <option value="note:builder">a note to the builder</option>
    <option value="note:instructor">a note to instructors</option>
    <option value="table">a table</option>
    <option value="line">a line across</option>
  </select>
  {#if table && editor && !source}
    <button type="button" onclick={() => addRow(editor)}>Row +</button>
    <button type="button" onclick={() => dropRow(editor)}>Row −</button>
    <button type="button" onclick={() => addColumn(editor)}>Column +</button>
    <button type="button" onclick={() => dropColumn(editor)}>Column −</button>
  {/if}
</span>

<style>
  .tools {
    display: flex;
    gap: 2px 8px;
    align-items: center;
    flex-wrap: wrap;
  }
  .off {
    opacity: 0.55;
  }
  button {
    padding: 2px 5px;
    border-radius: var(--r);
    color: var(--ink-2);
    cursor: pointer;
    font-size: 13px;
  }
  button:hover:not(:disabled) {
    color: var(--do);
  }
  button[aria-pressed='true'] {
    background: var(--do-soft);
    color: var(--ink);
  }
  .entry {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    font-size: 13px;
    max-width: 140px;
  }
</style>
