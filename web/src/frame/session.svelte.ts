import { api, got, onSignedOut, Problem, type Schemas } from '../api/client';

const AGAIN = 3_000;

/** Who is signed in, the term one works in, and the keys of the page. */
class Session {
  #again: ReturnType<typeof setTimeout> | undefined;
  me = $state.raw<Schemas['Me'] | null>(null);
  known = $state(false);
  needsFirstPerson = $state(false);
  making = $state.raw<Schemas['Far'] | null>(null);
  terms = $state.raw<Schemas['TermView'][]>([]);
  /** Whether the server has said which terms there are; until then nobody knows that none is. */
  termsKnown = $state(false);
  termId = $state(localStorage.getItem('term') ?? '');

  get coordinates(): boolean {
    return this.me !== null && this.me.role !== 'INSTRUCTOR';
  }

  /** The chosen term; else the one that runs; else the newest with sections. */
  get term(): Schemas['TermView'] | undefined {
    return (
      this.terms.find((t) => t.id === this.termId) ??
      this.terms.find((t) => t.week > 0) ??
      this.terms.find((t) => t.sections > 0) ??
      this.terms[0]
    );
  }

  choose(term: string) {
    this.termId = term;
    localStorage.setItem('term', term);
  }

  async load() {
    await this.loadReady();
    try {
      this.me = await got(api.GET('/api/me'));
    } catch (e) {
      if (!(e instanceof Problem && e.status === 401)) throw e;
    }
    if (this.coordinates) await this.loadTerms();
    this.known = true;
  }

  /** While data come by themselves, looks again how far they are. */
  private async loadReady() {
    clearTimeout(this.#again);
    const ready = await got(api.GET('/api/ready'));
    this.needsFirstPerson = ready.needsFirstPerson;
    this.making = ready.making ?? null;
    if (this.making && !this.making.failed) {
      const look = () => this.loadReady().catch(() => (this.#again = setTimeout(look, AGAIN)));
      this.#again = setTimeout(look, AGAIN);
    }
  }

  async loadTerms() {
    this.terms = await got(api.GET('/api/coverage/terms'));
    this.termsKnown = true;
  }
}

export const session = new Session();
onSignedOut(() => (session.me = null));
