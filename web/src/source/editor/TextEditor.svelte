<script lang="ts">
  import type { Editor } from '@tiptap/core';
  import { onMount, untrack } from 'svelte';
  import type { Node } from '../tree';
  import { fileAddress, type Kept, type Picked } from './kept';
  import LinkEntry from './LinkEntry.svelte';
  import Tools from './Tools.svelte';
  import './editor.css';
  import { given, pasted, taken, whole } from './inout';

  /** A text that is written as it will look, or as its source. */
  let {
    html,
    label,
    change,
    upload,
    nodes = [],
    values = [],
    low = false,
  }: {
    html: string;
    label: string;
    change: (html: string) => void;
    upload: (file: File) => Promise<Kept>;
    nodes?: Node[];
    values?: { name: string; words: string }[];
    low?: boolean;
  } = $props();

  let at: HTMLDivElement;
  let editor = $state.raw<Editor | null>(null);
  /** Another number after each change, so that the tools show what the cursor stands in. */
  let stamp = $state(0);
  let source = $state(false);
  let text = $state(untrack(() => html));
  let loses = $state(false);
  let linking = $state(false);
  let trouble = $state('');

  onMount(() => {
    let gone = false;
    void open(() => gone);
    return () => {
      gone = true;
      editor?.destroy();
    };
  });

  async function open(gone: () => boolean) {
    const [{ Editor }, { extensions }] = await Promise.all([
      import('@tiptap/core'),
      import('./schema'),
    ]);
    if (gone()) return;
    const e = new Editor({
      element: at,
      extensions,
      content: taken(text),
      injectCSS: false,
      editorProps: {
        attributes: {
          'aria-label': label,
          role: 'textbox',
          'aria-multiline': 'true',
          spellcheck: 'true',
        },
        transformPastedHTML: pasted,
        handleDrop: (_, event) => drop(event.dataTransfer?.files),
        handlePaste: (_, event) => drop(event.clipboardData?.files),
      },
      onUpdate: () => {
        text = given(e.getHTML());
        change(text);
      },
      onTransaction: () => stamp++,
    });
    loses = !whole(text, given(e.getHTML()));
    if (loses) source = true; // who has asked for the source already stays there
    editor = e;
  }

  function drop(files: FileList | undefined): boolean {
    if (!files?.length) return false;
    void put([...files]);
    return true;
  }

  /** Pictures are shown, other files are linked. */
  async function put(all: File[]) {
    trouble = '';
    for (const file of all) {
      try {
        const kept = await upload(file);
        const href = fileAddress(kept);
        if (kept.mediaType?.startsWith('image/')) {
          const attrs = { kept: { src: href.replace('zref:file/', '/api/files/'), alt: '' } };
          editor?.chain().focus().insertContent({ type: 'picture', attrs }).run();
        } else {
          link({ href, words: kept.name ?? 'file' });
        }
      } catch (e) {
        trouble = e instanceof Error ? e.message : String(e);
      }
    }
  }

  function link(to: Picked | null) {
    linking = false;
    if (!editor) return;
    const chain = editor.chain().focus();
    if (!to) chain.extendMarkRange('link').unsetMark('link').run();
    else if (editor.state.selection.empty && !editor.isActive('link'))
      chain
        .insertContent({
          type: 'text',
          text: to.words,
          marks: [{ type: 'link', attrs: { href: to.href } }],
        })
        .run();
    else chain.extendMarkRange('link').setMark('link', { href: to.href }).run();
  }

  function bySource(e: Event & { currentTarget: HTMLTextAreaElement }) {
    text = e.currentTarget.value;
    change(text);
  }

  function toSource() {
    source = true;
  }

  function toText() {
    editor?.commands.setContent(taken(text), { emitUpdate: false });
    if (editor) loses = !whole(text, given(editor.getHTML()));
    source = false;
  }
</script>

<div class="editor" class:low>
  <div class="bar">
    <Tools
      {editor}
      {stamp}
      {source}
      {values}
      link={() => (linking = !linking)}
      file={(f) => void put(f)}
    />
    <span class="ways" role="group" aria-label="How it is shown">
      <button type="button" class="tab" aria-pressed={!source} onclick={toText}>Text</button>
      <button type="button" class="tab" aria-pressed={source} onclick={toSource}>Source</button>
    </span>
  </div>
  {#if linking && editor}
    <LinkEntry
      {nodes}
      href={(editor.getAttributes('link').href as string | undefined) ?? ''}
      done={link}
      cancel={() => (linking = false)}
    />
  {/if}
  {#if loses}
    <p class="mind">
      {source
        ? 'This text has markup that the editor would change, so its source is shown.'
        : 'Saving from here changes some markup of this text. Its source keeps all of it.'}
    </p>
  {/if}
  {#if trouble}<p class="harm" role="alert">{trouble}</p>{/if}
  <div class="page z-page" class:away={source} bind:this={at}></div>
  {#if source}
    <textarea class="entry" aria-label="{label}, source" value={text} oninput={bySource}></textarea>
  {/if}
</div>

<style>
  .editor {
    display: flex;
    flex-direction: column;
    min-height: 180px;
    flex: 1;
    border: 1px solid var(--line);
    border-radius: var(--r);
    background: var(--raise);
  }
  .low {
    min-height: 78px;
    flex: none;
  }
  .bar {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 3px 8px;
    border-bottom: 1px solid var(--line-soft);
    background: var(--paper);
    flex-wrap: wrap;
  }
  .ways {
    margin-left: auto;
    display: flex;
    gap: 12px;
  }
  .mind,
  .harm {
    padding: 4px 10px;
    font-size: 13px;
  }
  .mind {
    color: var(--mind);
  }
  .harm {
    color: var(--harm);
  }
  .page {
    flex: 1;
    min-height: 0;
    overflow: auto;
    display: flex;
    flex-direction: column;
  }
  .away {
    display: none;
  }
  textarea {
    flex: 1;
    border: 0 !important;
    font: 13px/19px var(--figure) !important;
    resize: none;
    min-height: 60px;
  }
</style>
