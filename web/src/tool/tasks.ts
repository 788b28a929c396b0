import type { Schemas } from '../api/client';
import { day } from '../marks/words';

/** A date and time of a shell, as people say it. */
function moment(local: string): string {
  return `${day(local.slice(0, 10))}, ${local.slice(11, 16)}`;
}

/** What does not agree, what follows from it, and what the tool would have it be. */
export function taskWords(
  f: Pick<Schemas['TaskFinding'], 'differs' | 'here' | 'there' | 'mend' | 'master'>,
  tool: string,
): { what: string; then: string; value: string } {
  const none = f.master ? '' : ' It is the section’s own: correct it there.';
  if (f.differs === 'POINTS')
    return {
      what: `${f.here} points in the shell, ${f.there} in ${tool}`,
      then: `Scores that come back are scaled.${none}`,
      value: `${f.there} points`,
    };
  return {
    what: `students see ${moment(f.here)}; ${moment(f.there)} counts`,
    then:
      f.mend === 'OPEN_AGAIN'
        ? `The shell leads: ${tool} takes its date when the instructor opens it from there.`
        : `${tool} takes the work, so its date counts.${none}`,
    value: moment(f.there),
  };
}
