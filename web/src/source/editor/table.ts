import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';

/** Where the cursor stands in a table: depths of row and cell, and the number of the cell. */
function at(editor: Editor) {
  const $from = editor.state.selection.$from;
  for (let d = $from.depth; d > 0; d--) {
    if ($from.node(d).type.name === 'tableCell')
      return { $from, cell: d, row: d - 1, column: $from.index(d - 1) };
  }
  return null;
}

export const inTable = (editor: Editor) => at(editor) !== null;

/** A table with a row of headings at the cursor. */
export function newTable(editor: Editor, rows: number, columns: number) {
  const cell = (tag: string) => ({
    type: 'tableCell',
    attrs: { tag },
    content: [{ type: 'paragraph' }],
  });
  const row = (tag: string) => ({
    type: 'tableRow',
    content: Array.from({ length: columns }, () => cell(tag)),
  });
  const part = (tag: string, content: object[]) => ({ type: 'tablePart', attrs: { tag }, content });
  const body = Array.from({ length: rows - 1 }, () => row('td'));
  const content = [part('thead', [row('th')]), part('tbody', body)];
  const from = editor.state.selection.from;
  editor.chain().insertContent({ type: 'table', content }).run();
  let first = -1;
  editor.state.doc.descendants((n, pos) => {
    if (first < 0 && pos >= from - 1 && n.type.name === 'tableCell') first = pos + 2;
  });
  if (first >= 0) editor.commands.setTextSelection(first);
}

function emptied(row: Node): Node {
  const schema = row.type.schema;
  const cells: Node[] = [];
  row.forEach((c) =>
    cells.push(
      schema.nodes.tableCell.create(
        { tag: c.attrs.tag as string },
        schema.nodes.paragraph.create(),
      ),
    ),
  );
  return row.type.create(null, cells);
}

/** A row below; below the headings it begins the table's body. */
export function addRow(editor: Editor) {
  const here = at(editor);
  if (!here) return;
  const row = here.$from.node(here.row);
  editor.view.dispatch(editor.state.tr.insert(here.$from.after(here.row), emptied(row)));
}

export function dropRow(editor: Editor) {
  const here = at(editor);
  if (!here) return;
  let depth = here.row;
  while (
    here.$from.node(depth - 1).childCount === 1 &&
    depth > 1 &&
    here.$from.node(depth).type.name !== 'table'
  )
    depth--;
  editor.view.dispatch(editor.state.tr.delete(here.$from.before(depth), here.$from.after(depth)));
}

/** Every row of the table at the cursor, with where it stands. */
function rows(editor: Editor): { row: Node; pos: number }[] {
  const here = at(editor);
  if (!here) return [];
  let depth = here.row;
  while (here.$from.node(depth).type.name !== 'table') depth--;
  const all: { row: Node; pos: number }[] = [];
  const start = here.$from.start(depth);
  here.$from.node(depth).descendants((n, pos) => {
    if (n.type.name === 'tableRow') all.push({ row: n, pos: start + pos });
    return n.type.name !== 'tableRow';
  });
  return all;
}

function cellAt(row: Node, pos: number, column: number): { from: number; to: number; cell: Node } {
  let from = pos + 1;
  const n = Math.min(column, row.childCount - 1);
  for (let i = 0; i < n; i++) from += row.child(i).nodeSize;
  const cell = row.child(n);
  return { from, to: from + cell.nodeSize, cell };
}

export function addColumn(editor: Editor) {
  const here = at(editor);
  if (!here) return;
  const tr = editor.state.tr;
  const schema = editor.schema;
  for (const { row, pos } of rows(editor).reverse()) {
    const { to, cell } = cellAt(row, pos, here.column);
    const fresh = schema.nodes.tableCell.create(
      { tag: cell.attrs.tag as string },
      schema.nodes.paragraph.create(),
    );
    tr.insert(to, fresh);
  }
  editor.view.dispatch(tr);
}

export function dropColumn(editor: Editor) {
  const here = at(editor);
  if (!here) return;
  const tr = editor.state.tr;
  const all = rows(editor);
  if (all.some((r) => r.row.childCount < 2)) return;
  for (const { row, pos } of all.reverse()) {
    const { from, to } = cellAt(row, pos, here.column);
    tr.delete(from, to);
  }
  editor.view.dispatch(tr);
}
