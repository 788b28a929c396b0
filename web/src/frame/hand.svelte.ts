/** The sections one has chosen; they stay chosen across pages, in this browser tab. */
class Hand {
  sections = $state.raw<ReadonlySet<string>>(new Set(read()));

  has(id: string): boolean {
    return this.sections.has(id);
  }

  get size(): number {
    return this.sections.size;
  }

  take(ids: Iterable<string>) {
    this.keep(new Set([...this.sections, ...ids]));
  }

  /** Takes only these. */
  only(ids: Iterable<string>) {
    this.keep(new Set(ids));
  }

  toggle(id: string) {
    const next = new Set(this.sections);
    if (!next.delete(id)) next.add(id);
    this.keep(next);
  }

  drop() {
    this.keep(new Set());
  }

  private keep(next: Set<string>) {
    this.sections = next;
    sessionStorage.setItem('hand', JSON.stringify([...next]));
  }
}

function read(): string[] {
  try {
    return JSON.parse(sessionStorage.getItem('hand') ?? '[]') as string[];
  } catch {
    return []; // somebody else's text under our name: begin anew
  }
}

export const hand = new Hand();
