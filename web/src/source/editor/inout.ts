/**
 * Between a text as it is kept and as the editor holds it. In the editor a style is a plain
 * attribute, since the page's own policy lets no inline style through; pictures have the address
 * where they can be fetched; what the editor has no form for is kept whole in a box.
 */

const TAG = /<[a-zA-Z][^>]*>/g;

/** The text as the editor takes it. */
export function taken(html: string): string {
  return html.replace(TAG, (tag) =>
    tag
      .replace(/\sstyle=/gi, ' data-z-style=')
      .replace(/\s(src|poster)=("|')zref:file\//gi, ' $1=$2/api/files/'),
  );
}

/** The text as it is kept, from the editor's. */
export function given(html: string): string {
  const doc = new DOMParser().parseFromString(html, 'text/html');
  for (const p of doc.querySelectorAll('p[data-z-implied]')) {
    p.removeAttribute('data-z-implied');
    const parent = p.parentElement!;
    const first = parent.firstChild === p;
    const lists = [...parent.children].slice(1).every((e) => /^(UL|OL)$/.test(e.tagName));
    if (parent !== doc.body && first && lists && !p.attributes.length)
      p.replaceWith(...p.childNodes);
  }
  for (const box of doc.querySelectorAll('[data-z-island]')) {
    const holder = doc.createElement('template');
    holder.innerHTML = box.getAttribute('data-z-island')!;
    box.replaceWith(holder.content);
  }
  return doc.body.innerHTML.replace(TAG, (tag) =>
    tag
      .replace(/\sdata-z-style=/gi, ' style=')
      .replace(/\s(src|poster)=("|')\/api\/files\/(?=[0-9a-f]{64}\/)/gi, ' $1=$2zref:file/'),
  );
}

/** What a text is made of, but for paragraphs that a browser implies anyway. */
function parts(html: string): string {
  const doc = new DOMParser().parseFromString(taken(html), 'text/html');
  const words = (doc.body.textContent ?? '').replace(/\s+/g, '');
  const elements = [...doc.body.querySelectorAll('*')]
    .filter((e) => !(/^(P|TBODY|SPAN)$/.test(e.tagName) && !e.attributes.length))
    .map(
      (e) =>
        e.tagName +
        [...e.attributes]
          .map((a) => `${a.name}=${a.value.replace(/\s+/g, ' ').trim()}`)
          .sort()
          .join(),
    )
    .sort();
  return words + '\n' + elements.join('\n');
}

/** Whether the editor would give back all that it took. */
export const whole = (before: string, after: string) => parts(before) === parts(after);

const PASTED = ['href', 'src', 'alt', 'title', 'colspan', 'rowspan', 'scope', 'start', 'lang'];

/** What was copied from another program: its text and structure, without its looks. */
export function pasted(html: string): string {
  if (html.includes('data-pm-slice')) return html; // from an editor of ours
  const doc = new DOMParser().parseFromString(html, 'text/html');
  doc
    .querySelectorAll('script, style, meta, link, title, [src^="data:"]')
    .forEach((e) => e.remove());
  for (const e of [...doc.body.querySelectorAll('*')]) {
    for (const a of [...e.attributes]) if (!PASTED.includes(a.name)) e.removeAttribute(a.name);
    if (/^(SPAN|FONT|O:P)$/.test(e.tagName)) e.replaceWith(...e.childNodes);
  }
  return doc.body.innerHTML;
}
