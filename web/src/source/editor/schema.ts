import { Extension, Mark, mergeAttributes, Node, type Attributes } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';

/** Attributes that a node has of its own; all others are kept as they are. */
const OWN = ['href', 'data-z-implied', 'data-z-island', 'contenteditable', 'draggable'];
const BLOCKS =
  'address,article,aside,blockquote,details,dd,div,dl,dt,fieldset,figcaption,figure,footer,form,' +
  'h1,h2,h3,h4,h5,h6,header,hr,iframe,main,nav,ol,p,pre,section,table,ul,video,audio';
const ISLANDS =
  'iframe,video,audio,object,embed,applet,svg,math,canvas,form,dl,map,fieldset,select,button,' +
  'input,textarea,picture,ruby,colgroup,noscript,template';

const hasBlocks = (e: HTMLElement) => [...e.children].some((c) => c.matches(BLOCKS));

function kept(e: HTMLElement): Record<string, string> {
  const all: Record<string, string> = {};
  for (const a of e.attributes) if (!OWN.includes(a.name)) all[a.name] = a.value;
  return all;
}

const keeping = (): Attributes => ({
  kept: { default: {}, parseHTML: kept, renderHTML: (a) => a.kept as Record<string, string> },
});
const tagged = (tag: string): Attributes => ({
  ...keeping(),
  tag: {
    default: tag,
    parseHTML: (e: HTMLElement) => e.tagName.toLowerCase(),
    renderHTML: () => ({}),
  },
});

const attributes = (a: Record<string, unknown>): Record<string, unknown> => a;

/** Keeps attributes on the parts of the kit. */
const Kept = Extension.create({
  name: 'kept',
  addGlobalAttributes() {
    const types = ['heading', 'bulletList', 'orderedList', 'listItem', 'blockquote', 'link'];
    return [{ types: [...types, 'horizontalRule'], attributes: keeping() }];
  },
});

/** A paragraph, or another element that holds text and no blocks. */
const Paragraph = Node.create({
  name: 'paragraph',
  priority: 1000,
  group: 'block',
  content: 'inline*',
  addAttributes() {
    return {
      ...tagged('p'),
      implied: {
        default: true,
        parseHTML: () => false,
        renderHTML: (a) => (a.implied && a.tag === 'p' ? { 'data-z-implied': '' } : {}),
      },
    };
  },
  parseHTML() {
    const plain = (e: HTMLElement) => (hasBlocks(e) ? false : null);
    return [
      { tag: 'p' },
      ...['div', 'section', 'article', 'aside', 'header', 'footer', 'figure', 'figcaption'].map(
        (tag) => ({ tag, getAttrs: plain, priority: 40 }),
      ),
      { tag: 'summary' },
      { tag: 'address', getAttrs: plain, priority: 40 },
    ];
  },
  renderHTML({ node, HTMLAttributes }) {
    return [node.attrs.tag as string, attributes(HTMLAttributes), 0];
  },
});

/** An element that holds blocks; notes are boxes too. */
const Box = Node.create({
  name: 'box',
  group: 'block',
  content: 'block+',
  defining: true,
  addAttributes: () => tagged('div'),
  parseHTML: () => [
    { tag: 'aside.z-builder,aside.z-instructor', priority: 70 },
    ...(
      ['div', 'section', 'article', 'aside', 'header', 'footer', 'main', 'nav', 'figure'] as const
    ).map((tag) => ({
      tag,
      priority: 45,
      getAttrs: (e: HTMLElement) => (hasBlocks(e) ? null : false),
    })),
    { tag: 'details', priority: 45 },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [node.attrs.tag as string, HTMLAttributes, 0],
});

const Pre = Node.create({
  name: 'pre',
  group: 'block',
  content: 'text*',
  marks: '',
  code: true,
  defining: true,
  addAttributes: () => keeping(),
  parseHTML: () => [
    {
      tag: 'pre',
      preserveWhitespace: 'full',
      getAttrs: (e) => (e.children.length ? false : null),
      priority: 60,
    },
  ],
  renderHTML: ({ HTMLAttributes }) => ['pre', HTMLAttributes, 0],
});

const Picture = Node.create({
  name: 'picture',
  group: 'inline',
  inline: true,
  draggable: true,
  addAttributes: () => keeping(),
  parseHTML: () => [{ tag: 'img' }],
  renderHTML: ({ HTMLAttributes }) => ['img', HTMLAttributes],
});

/** A value that is filled in for each section. */
const Value = Node.create({
  name: 'value',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    ...keeping(),
    words: { default: '', parseHTML: (e: HTMLElement) => e.textContent, renderHTML: () => ({}) },
  }),
  parseHTML: () => [{ tag: 'data.z-value[value]', priority: 80 }],
  renderHTML: ({ node, HTMLAttributes }) => ['data', HTMLAttributes, node.attrs.words as string],
});

/** What the instructor fills in. */
const Blank = Node.create({
  name: 'blank',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    words: { default: '', parseHTML: (e: HTMLElement) => e.textContent, renderHTML: () => ({}) },
  }),
  parseHTML: () => [{ tag: 'span.z-blank', priority: 80 }],
  renderHTML: ({ node }) => ['span', { class: 'z-blank' }, node.attrs.words as string],
});

function islandName(html: string): string {
  const tag = /^<([a-z0-9]+)/i.exec(html)?.[1].toLowerCase() ?? 'part';
  const host = /(?:src|data)="https?:\/\/([^/"]+)/i.exec(html)?.[1];
  return host ? `${tag} of ${host}` : tag;
}

const island = (name: string, inline: boolean) =>
  Node.create({
    name,
    group: inline ? 'inline' : 'block',
    inline,
    atom: true,
    draggable: true,
    addAttributes: () => ({
      html: {
        default: '',
        parseHTML: (e: HTMLElement) => e.outerHTML,
        renderHTML: (a) => ({ 'data-z-island': a.html as string }),
      },
    }),
    parseHTML: () => [
      {
        tag: ISLANDS + ',pre,data,a:not([href]):empty,span:empty,ins:has(p),del:has(p)',
        priority: inline ? 54 : 55,
        getAttrs: (e: HTMLElement) => {
          const parent = e.parentElement;
          const among = parent?.matches('p,span,b,i,em,strong,a,h1,h2,h3,h4,h5,h6,label,summary');
          return (inline ? among : !among) ? null : false;
        },
      },
    ],
    renderHTML: ({ node, HTMLAttributes }) => [
      inline ? 'span' : 'div',
      mergeAttributes(HTMLAttributes, { class: 'z-island' }),
      islandName(node.attrs.html as string),
    ],
  });

const weight = (name: string, tag: string, other: string, key: string) =>
  Mark.create({
    name,
    addAttributes: () => tagged(tag),
    parseHTML: () => [{ tag }, { tag: other }],
    renderHTML: ({ mark, HTMLAttributes }) => [mark.attrs.tag as string, HTMLAttributes, 0],
    addKeyboardShortcuts() {
      return { [key]: () => this.editor.commands.toggleMark(name) };
    },
  });

/** Any other mark of words, by its element. */
const Inline = Mark.create({
  name: 'inlineTag',
  excludes: '',
  priority: 50,
  addAttributes: () => tagged('span'),
  parseHTML: () => [
    {
      tag:
        'span:not(.z-blank),sub,sup,small,mark,abbr,kbd,samp,var,cite,q,ins,del,s,u,code,font,' +
        'bdi,bdo,time,label,big,tt,dfn,strike,a:not([href])',
      priority: 30,
    },
  ],
  renderHTML: ({ mark, HTMLAttributes }) => [mark.attrs.tag as string, HTMLAttributes, 0],
});

const part = (
  name: string,
  tags: string,
  content: string,
  first: string,
  more: Record<string, unknown> = {},
) =>
  Node.create({
    name,
    content,
    isolating: true,
    addAttributes: () => tagged(first),
    parseHTML: () => tags.split(',').map((tag) => ({ tag, priority: 60 })),
    renderHTML: ({ node, HTMLAttributes }) => [node.attrs.tag as string, HTMLAttributes, 0],
    ...more,
  });

export const extensions = [
  StarterKit.configure({
    paragraph: false,
    bold: false,
    italic: false,
    codeBlock: false,
    code: false,
    strike: false,
    underline: false,
    trailingNode: false,
    link: {
      openOnClick: false,
      autolink: false,
      isAllowedUri: () => true,
      HTMLAttributes: { target: null, rel: null },
    },
  }),
  Kept,
  Paragraph,
  Box,
  Pre,
  Picture,
  Value,
  Blank,
  island('island', false),
  island('islandInline', true),
  weight('bold', 'strong', 'b', 'Mod-b'),
  weight('italic', 'em', 'i', 'Mod-i'),
  Inline,
  part('table', 'table', '(tableCaption|tablePart|tableRow)+', 'table', { group: 'block' }),
  part('tableCaption', 'caption', 'inline*', 'caption'),
  part('tablePart', 'thead,tbody,tfoot', 'tableRow+', 'tbody'),
  part('tableRow', 'tr', 'tableCell+', 'tr'),
  part('tableCell', 'td,th', 'block+', 'td'),
];
