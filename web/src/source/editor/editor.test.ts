import { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import { given, pasted, taken, whole } from './inout';
import { extensions } from './schema';
import { addColumn, addRow, dropColumn, dropRow, newTable } from './table';

let editor: Editor | undefined;
afterEach(() => editor?.destroy());

function open(html: string): Editor {
  editor = new Editor({ extensions, content: taken(html), injectCSS: false });
  return editor;
}
const through = (html: string) => given(open(html).getHTML());
const SHA = 'a'.repeat(64);

describe('a text that is opened and given back', () => {
  it.each([
    ['paragraphs', '<p>One <strong>two</strong> <em>three</em>.</p><p class="lead">Four.</p>'],
    ['styles', '<p style="color: red">One.</p><div class="card" id="c"><p>Two.</p></div>'],
    ['lists', '<ul><li>one</li><li>two<ul><li>three</li></ul></li></ul>'],
    ['lists of paragraphs', '<ol><li><p>one</p></li></ol>'],
    [
      'tables',
      '<table><caption>Loads</caption><thead><tr><th scope="col">A</th></tr></thead>' +
        '<tbody><tr><td>1</td></tr></tbody></table>',
    ],
    ['pictures', `<p><img src="zref:file/${SHA}/plot%201.png" alt="Plot" width="40"></p>`],
    ['links', '<p><a class="x" href="zref:item/k1#top">there</a> <a id="here"></a>and</p>'],
    ['words', '<p>H<sub>2</sub>O <b>b</b> <i>i</i> <code>c</code> <abbr title="x">y</abbr></p>'],
    ['frames', '<iframe src="https://film.example/1" title="Film" width="4"></iframe><p>x</p>'],
    ['drawings', '<p>See <svg width="1"><path d="M0 0"></path></svg> here</p>'],
    ['preformatted text', '<pre>a  b\n c</pre>'],
    ['definitions', '<dl><dt>Gel</dt><dd>Colour</dd></dl>'],
    [
      'marks',
      '<p><data class="z-value" value="term">term</data> <span class="z-blank">hours</span></p>' +
        '<aside class="z-builder"><p>Ask.</p></aside><aside class="z-instructor"><p>Key.</p></aside>',
    ],
    ['headings', '<h2 id="a">One</h2><hr><blockquote><p>Two</p></blockquote>'],
    ['details', '<details><summary>More</summary><p>Text</p></details>'],
  ])('keeps %s', (_, html) => {
    expect(through(html)).toBe(html);
    expect(whole(html, through(html))).toBe(true);
  });

  it('is told where something would be lost', () => {
    expect(
      whole(
        '<p>One <weird-thing>two</weird-thing></p>',
        through('<p>One <weird-thing>two</weird-thing></p>'),
      ),
    ).toBe(false);
  });

  it('runs nothing that stands in it', () => {
    const html = through('<p onclick="alert(1)">x</p><script>alert(1)</script>');
    expect(html).not.toContain('<script');
  });
});

describe('what is pasted', () => {
  it('keeps its structure and loses the looks of the program it came from', () => {
    const office =
      '<style>p{margin:0}</style><p class="MsoNormal" style="margin:0"><span style="color:red">One ' +
      '<b>two</b></span><o:p></o:p></p><table><tr><td width="9" colspan="2">a</td></tr></table>';
    expect(pasted(office)).toBe(
      '<p>One <b>two</b></p><table><tbody><tr><td colspan="2">a</td></tr></tbody></table>',
    );
  });

  it('is left as it is when it comes from an editor of ours', () => {
    const own = '<p data-pm-slice="1 1 []"><span class="z-blank">hours</span></p>';
    expect(pasted(own)).toBe(own);
  });
});

describe('a table', () => {
  it('is made, and gets and loses rows and columns', () => {
    const e = open('<p>x</p>');
    newTable(e, 2, 2);
    const count = () => [
      e.getHTML().split('<tr').length - 1,
      e.getHTML().split(/<t[dh][ >]/).length - 1,
    ];
    expect(count()).toEqual([2, 4]);
    addRow(e);
    expect(count()).toEqual([3, 6]);
    addColumn(e);
    expect(count()).toEqual([3, 9]);
    dropRow(e);
    dropColumn(e);
    expect(count()).toEqual([2, 4]);
  });
});
