import { api, got, onSignedOut, Problem, type Schemas } from '../api/client';

/** Who is signed in, the term one works in, and the keys of the page. */
class Session {
  me = $state.raw<Schemas['Me'] | null>(null);
  known = $state(false);
  needsFirstPerson = $state(false);
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
    this.needsFirstPerson = (await got(api.GET('/api/ready'))).needsFirstPerson;
    try {
      this.me = await got(api.GET('/api/me'));
    } catch (e) {
      if (!(e instanceof Problem && e.status === 401)) throw e;
    }
    if (this.coordinates) await this.loadTerms();
    this.known = true;
  }

  async loadTerms() {
    this.terms = await got(api.GET('/api/coverage/terms'));
    this.termsKnown = true;
  }
}

export const session = new Session();
onSignedOut(() => (session.me = null));
