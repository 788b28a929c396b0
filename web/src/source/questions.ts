import type { Schemas } from '../api/client';

export type Asked = Schemas['AskedQuestion'];
export type Stretch = Schemas['Stretch'];
export type Type = Asked['type'];

export const types: Record<Exclude<Type, 'OTHER'>, string> = {
  MULTIPLE_CHOICE: 'one answer of several',
  MULTIPLE_RESPONSE: 'several answers of several',
  TRUE_FALSE: 'true or false',
  FILL_IN: 'a word to fill in',
  PATTERN_MATCH: 'a text that holds a word',
  ESSAY: 'an essay',
};

export const chosen = (t: Type) =>
  t === 'MULTIPLE_CHOICE' || t === 'MULTIPLE_RESPONSE' || t === 'TRUE_FALSE';
export const written = (t: Type) => t === 'FILL_IN' || t === 'PATTERN_MATCH';

let made = 0;
/** An id that no other question of the set has. */
const fresh = () => 'q' + Date.now().toString(36) + (made++).toString(36);

const answer = (html: string, percent: string) => ({
  id: fresh(),
  html,
  percent,
  feedback: '',
  exactCase: false,
});

export function newQuestion(type: Exclude<Type, 'OTHER'>): Asked {
  const answers =
    type === 'TRUE_FALSE'
      ? [answer('True', '100'), answer('False', '0')]
      : chosen(type)
        ? [answer('', '100'), answer('', '0')]
        : written(type)
          ? [answer('', '100')]
          : [];
  return {
    id: fresh(),
    title: '',
    type,
    html: '',
    answers,
    points: '1',
    category: '',
    shuffled: false,
    notes: { always: '', right: '', wrong: '', hint: '', solution: '' },
    kept: false,
  };
}

export const newAnswer = (q: Asked) => answer('', written(q.type) ? '100' : '0');

/** Another of the same words, with an id of its own. */
export function copyOf(q: Asked): Asked {
  return { ...structuredClone(q), id: fresh(), kept: false };
}

export function newGroup(bank: string | undefined, title: string): Stretch {
  return { group: { id: fresh(), title, draw: 1, pointsEach: '1', bank }, questions: [] };
}

/** The words of a question, for a list. */
export function words(html: string): string {
  const doc = new DOMParser().parseFromString(html, 'text/html');
  return (doc.body.textContent ?? '').replace(/\s+/g, ' ').trim();
}

/** How many are asked, and what they earn. */
export function sum(parts: readonly Stretch[]): { asked: number; points: number } {
  let asked = 0;
  let points = 0;
  for (const p of parts) {
    const draw = p.group?.draw;
    const each = p.group?.pointsEach ? Number(p.group.pointsEach) : undefined;
    asked += draw ?? p.questions.length;
    points += draw
      ? draw * (each ?? Number(p.questions[0]?.points ?? 1))
      : p.questions.reduce((n, q) => n + (each ?? (Number(q.points) || 0)), 0);
  }
  return { asked, points };
}
