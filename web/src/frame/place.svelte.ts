/** Where one is: the address is the only state a view needs to come back to. */
class Place {
  path = $state(location.pathname);
  query = $state.raw(new URLSearchParams(location.search));

  constructor() {
    addEventListener('popstate', () => this.read());
  }

  private read() {
    this.path = location.pathname;
    this.query = new URLSearchParams(location.search);
  }

  /** Goes to an address of the application. */
  go(to: string, replace = false) {
    if (replace) history.replaceState(null, '', to);
    else history.pushState(null, '', to);
    this.read();
  }

  get(name: string): string {
    return this.query.get(name) ?? '';
  }

  /** Changes the query; an empty value takes a name out. */
  set(changes: Record<string, string>, replace = true) {
    const next = new URLSearchParams(location.search);
    for (const [name, value] of Object.entries(changes)) {
      if (value) next.set(name, value);
      else next.delete(name);
    }
    const text = next.toString();
    this.go(location.pathname + (text ? '?' + text : ''), replace);
  }
}

export const place = new Place();

/** Lets links inside the application change the address without loading the page anew. */
export function followLinks(event: MouseEvent) {
  const a = (event.target as Element).closest?.('a[href]');
  if (!a || event.defaultPrevented || event.button) return;
  if (event.metaKey || event.ctrlKey || event.shiftKey) return;
  const href = a.getAttribute('href')!;
  if (!href.startsWith('/') || a.hasAttribute('target') || a.hasAttribute('download')) return;
  event.preventDefault();
  place.go(href);
}
