import type { Schemas } from '../api/client';
import { many } from '../marks/words';

type Line = Schemas['DeliveryLine'];
type What = NonNullable<Line['waitsFor']>;

/** What lines wait for that cannot begin yet, and what follows. */
export interface Wait {
  what: What;
  lines: Line[];
  said: string;
  then: string;
}

const words: Record<What, (n: number) => [string, string]> = {
  SHELL: (n) => [
    `${many(n, 'section')} ${n === 1 ? 'has' : 'have'} no shell yet`,
    n === 1 ? 'It is filled when it appears.' : 'They are filled when they appear.',
  ],
  EMPTY: (n) => [
    `${many(n, 'shell')} ${n === 1 ? 'is' : 'are'} not empty`,
    `The delivery goes on by itself when ${n === 1 ? 'it is' : 'they are'} cleared.`,
  ],
  BEFORE: (n) => [
    `${many(n, 'section')} ${n === 1 ? 'waits' : 'wait'} for what comes before in this order`,
    '',
  ],
  PACKAGE: (n) => [
    `${many(n, 'package')} ${n === 1 ? 'waits' : 'wait'} to be brought in`,
    `The delivery goes on by itself when ${n === 1 ? 'it is' : 'they are'}.`,
  ],
  TIME: (n) => [`${many(n, 'section')} ${n === 1 ? 'waits' : 'wait'} for the set time`, ''],
};

export function waits(lines: readonly Line[]): Wait[] {
  return (Object.keys(words) as What[]).flatMap((what) => {
    const some = lines.filter((l) => l.state === 'NOT_YET' && l.waitsFor === what);
    if (!some.length) return [];
    const [said, then] = words[what](some.length);
    return [{ what, lines: some, said, then }];
  });
}
