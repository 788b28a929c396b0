import { beforeEach, describe, expect, it } from 'vitest';
import { followLinks, place } from './place.svelte';

beforeEach(() => place.go('/coverage?term=t1&show=changed'));

describe('the address', () => {
  it('keeps what is not changed, and takes out what is empty', () => {
    place.set({ show: '', view: 'grid' });
    expect(location.search).toBe('?term=t1&view=grid');
    expect(place.get('view')).toBe('grid');
    expect(place.get('show')).toBe('');
  });

  it('follows the browser back', async () => {
    place.go('/sources');
    history.back();
    await expect.poll(() => place.path).toBe('/coverage');
    expect(place.get('show')).toBe('changed');
  });
});

describe('a link', () => {
  function click(html: string, how: MouseEventInit = {}): boolean {
    document.body.innerHTML = html;
    document.addEventListener('click', followLinks);
    const click = new MouseEvent('click', { bubbles: true, cancelable: true, ...how });
    // What is left to the browser would leave the page; not in this test.
    document.addEventListener('click', (e) => e.preventDefault(), { once: true });
    const before = place.path;
    document.querySelector('a')!.dispatchEvent(click);
    document.removeEventListener('click', followLinks);
    return place.path !== before;
  }

  it('inside is followed without loading the page anew', () => {
    expect(click('<a href="/sources">Sources</a>')).toBe(true);
    expect(place.path).toBe('/sources');
  });

  it.each([
    ['to elsewhere', '<a href="https://maker.example">Maker</a>', {}],
    ['to a new window', '<a href="/sources" target="_blank">Sources</a>', {}],
    ['to a file', '<a href="/api/file" download>File</a>', {}],
    ['with Ctrl', '<a href="/sources">Sources</a>', { ctrlKey: true }],
    ['with Shift', '<a href="/sources">Sources</a>', { shiftKey: true }],
    ['with another button', '<a href="/sources">Sources</a>', { button: 1 }],
  ])('%s is left to the browser', (_what, html, how) => {
    expect(click(html, how)).toBe(false);
  });
});
