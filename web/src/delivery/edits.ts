import type { Schemas } from '../api/client';

export type What = Schemas['NewEdit']['what'];

/** What an edit asks for, and what it does. */
export interface Need {
  words?: boolean;
  from?: boolean;
  after?: boolean;
  /** Items have to be chosen. */
  items?: boolean;
  /** Items may be chosen; else it is about all that it finds. */
  choice?: boolean;
  says: string;
}

const all: [What, string, Need][] = [
  ['HIDE', 'Hide from students', { items: true, says: 'Students see the items no more.' }],
  [
    'SHOW',
    'Show to students',
    { items: true, says: 'What is only for instructors stays hidden, whatever is chosen.' },
  ],
  [
    'OPEN_FROM',
    'Open from a day on',
    {
      items: true,
      from: true,
      says: 'Shown, and closed until then, in each section’s local time.',
    },
  ],
  [
    'OPEN_AFTER',
    'Open after another item',
    { items: true, after: true, says: 'Closed until a student has opened the other item.' },
  ],
  [
    'REMOVE',
    'Remove',
    { items: true, says: 'Not where students have handed in work, nor modules that hold others.' },
  ],
  [
    'UNWRAP',
    'Take wrappers away, keep their items',
    { items: true, says: 'A module goes, and what stands in it takes its place, in its order.' },
  ],
  ['REMOVE_EMPTY', 'Remove empty modules', { choice: true, says: 'Modules with nothing in them.' }],
  [
    'STRIP_NOTES',
    'Take out builder notes',
    { choice: true, says: 'Sentences from builder to builder, in every text.' },
  ],
  [
    'UNINDENT',
    'Take indents out of titles',
    { choice: true, says: 'Dashes, dots and arrows that stand before the first word.' },
  ],
  [
    'UNLINK',
    'Mend links that lead nowhere',
    { choice: true, says: 'They lead where they were meant to, or become plain words.' },
  ],
  [
    'DROP_ENTRIES',
    'Take out entries that lead nowhere',
    { says: 'Of menus and front pages, where the item is not in the shell.' },
  ],
  [
    'DROP_CONDITIONS',
    'Take off conditions that nobody can meet',
    { choice: true, says: 'Those about items that are not in the shell.' },
  ],
  [
    'ONE_FRONT_PAGE',
    'Make one front page of several',
    { says: 'The master’s stays, with what the others say besides.' },
  ],
  [
    'REPLACE',
    'Replace words',
    { choice: true, words: true, says: 'In titles and texts; a part of a longer word is none.' },
  ],
];

export const everyEdit: readonly [What, string][] = all.map(([w, words]) => [w, words]);

export const needs = {
  ...Object.fromEntries(all.map(([w, , need]) => [w, need])),
  PUT_BACK: { says: '' },
  CARRY: { says: '' },
  FILL_BLANKS: { says: '' },
} as Record<What, Need>;
