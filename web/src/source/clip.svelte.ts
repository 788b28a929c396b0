/** Items that were cut or copied in a source, until they are put somewhere. */
export interface Clip {
  /** The master or the edition that they are of. */
  master?: string;
  edition?: string;
  version: number;
  keys: string[];
  /** Taken away from where they were once they are put elsewhere. */
  cut: boolean;
  /** Of the first of them. */
  title: string;
}

const KEPT = 'clip';

function kept(): Clip | null {
  try {
    return JSON.parse(sessionStorage.getItem(KEPT) ?? 'null') as Clip | null;
  } catch {
    return null; // what cannot be read was not kept by us
  }
}

class Clipboard {
  #of = $state.raw<Clip | null>(kept());

  get of() {
    return this.#of;
  }

  set of(clip) {
    this.#of = clip;
    if (clip) sessionStorage.setItem(KEPT, JSON.stringify(clip));
    else sessionStorage.removeItem(KEPT);
  }
}

/** Lasts from master to master, and over a reload of the page. */
export const clip = new Clipboard();
