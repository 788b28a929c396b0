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

class Clipboard {
  of = $state.raw<Clip | null>(null);
}

/** Lasts from master to master. */
export const clip = new Clipboard();
