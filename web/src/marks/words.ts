import type { Aspect, Kind, Reason, StepKind } from '../api/client';

const figures = new Intl.NumberFormat('en-GB');

export function figure(n: number): string {
  return figures.format(n);
}

/** "1 section", "12 sections". */
export function many(n: number, one: string, more = one + 's'): string {
  return figure(n) + ' ' + (n === 1 ? one : more);
}

/** A time as people say it: "2 minutes ago", "21 Sep", "3 Feb 2025". */
export function ago(iso: string, now = Date.now()): string {
  const then = new Date(iso);
  const seconds = (now - then.getTime()) / 1000;
  if (seconds < 50) return 'just now';
  if (seconds < 3000) return many(Math.round(seconds / 60), 'minute') + ' ago';
  if (seconds < 72000) return many(Math.round(seconds / 3600), 'hour') + ' ago';
  return day(iso, now);
}

export function day(iso: string, now = Date.now()): string {
  const then = new Date(iso);
  const year = then.getFullYear() === new Date(now).getFullYear() ? undefined : 'numeric';
  return then.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year });
}

export function exact(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', { dateStyle: 'full', timeStyle: 'medium' });
}

/** "4.2 MB". */
export function size(bytes: number): string {
  if (bytes < 1000) return bytes + ' bytes';
  if (bytes < 1e6) return (bytes / 1e3).toFixed(0) + ' kB';
  if (bytes < 1e9) return (bytes / 1e6).toFixed(1) + ' MB';
  return (bytes / 1e9).toFixed(2) + ' GB';
}

const kindWords: Record<Kind, [string, string]> = {
  MODULE: ['module', 'modules'],
  PAGE: ['page', 'pages'],
  FILE: ['file', 'files'],
  WEB_LINK: ['web link', 'web links'],
  TOOL_LINK: ['tool link', 'tool links'],
  ASSIGNMENT: ['assignment', 'assignments'],
  DISCUSSION: ['discussion', 'discussions'],
  QUIZ: ['quiz', 'quizzes'],
  QUESTION_BANK: ['question bank', 'question banks'],
  RUBRIC: ['rubric', 'rubrics'],
  OUTCOME: ['outcome', 'outcomes'],
  GRADE_CATEGORY: ['grade category', 'grade categories'],
  ANNOUNCEMENT: ['announcement', 'announcements'],
  GROUP_SET: ['group set', 'group sets'],
  SETUP: ['setup', 'setup'],
};

export const kinds = Object.keys(kindWords) as Kind[];

export function kind(k: Kind, n = 1): string {
  return kindWords[k][n === 1 ? 0 : 1];
}

const aspects: Record<Aspect, string> = {
  WORDING: 'wording',
  GRADING: 'grading',
  TIMING: 'timing',
  PLACE: 'place',
  VISIBILITY: 'visibility',
  LAUNCH: 'launch',
};

/** All of them, in the order in which people look at them. */
export const everyAspect = Object.keys(aspects) as Aspect[];

export function aspect(a: Aspect): string {
  return aspects[a];
}

export function aspectList(list: readonly Aspect[]): string {
  return list.map(aspect).join(', ');
}

/** What a step does, in a word, by its kind and number. */
export const stepWords: Record<StepKind, [string, string]> = {
  UPDATE: ['update', 'updates'],
  ADD: ['addition', 'additions'],
  KEEP: ['kept', 'kept'],
  CLASH: ['clash', 'clashes'],
  TWIN: ['twin', 'twins'],
  RETIRE: ['retired', 'retired'],
  BLOCKED: ['blocked', 'blocked'],
  SAME: ['the same', 'the same'],
};

/** The kind of step that an address names, or none. */
export function stepKind(name: string): StepKind | '' {
  return name in stepWords ? (name as StepKind) : '';
}

export const reasons: Record<Reason, string> = {
  EQUAL: 'The section and the version are equal.',
  NEW_IN_VERSION: 'The section does not have it yet.',
  VERSION_MOVED: 'The version moved; the section did not touch it.',
  CHANGED_HERE: 'Changed in the section; the version did not move. It stays.',
  BOTH_MOVED: 'Both changed it since the last delivery.',
  MERGED: 'Both changed it, at different places. Both changes stay.',
  FIXED_PUT_BACK: 'It is fixed, so the section’s change is overwritten.',
  STARTER_BELONGS_TO_SECTION: 'A starter: delivered once, now the section’s own.',
  ALIKE_ADOPTED: 'The section holds something alike; it is taken as ours, unchanged.',
  ALIKE_EARLIER_TERM:
    'Alike, and of an earlier term: taken as ours; its dates and tool ties become the version’s.',
  ALIKE_DOUBTFUL: 'Perhaps alike. Nothing is done with it until you decide.',
  ALIKE_LEFT: 'The section holds something alike; it is left, and ours is not delivered.',
  SUPPLIED: 'Another master has it there, or brings it first. It is not brought twice.',
  NO_PLACE: 'This shell has no such module, or no such item in it. Nothing is brought.',
  NO_WEEK: 'This shell has no place for this week. Nothing of it is brought.',
  WEEKS_ADDED: 'This shell has fewer places for weeks than are needed. Places are added.',
  MEETS: 'Front pages of several masters are one page here, with what all of them say.',
  ALIKE_ADDED_BESIDE: 'The section holds something alike; ours is added beside it.',
  REMOVED_HERE: 'The section removed it; that is respected.',
  GONE_FROM_VERSION: 'It is no longer in the version.',
  GONE_BUT_CHANGED_HERE: 'No longer in the version, but changed in the section. It stays.',
  GONE_BUT_HOLDS_OTHERS: 'No longer in the version, but other items stand in it. It stays.',
  ALREADY_GONE: 'It is gone already.',
  STUDENT_WORK: 'Students left something on it: work, posts or grades. A person decides.',
  HIDDEN_INSTEAD: 'It was to go; students left something on it, so it is hidden instead.',
  LEFT_WITH_WORK: 'It was to go; students left something on it, and somebody said that it stays.',
  EMPTIED: 'Nearly all that was delivered is gone from this shell. Nothing is done there.',
  PUT_BACK: 'Changed in the section only; this delivery puts the version back.',
  ACCEPTED_HERE: 'The section’s own was accepted for good. It stays.',
  TAKEN_BACK: 'As it was before that delivery.',
  EDITED: 'Changed alike in all chosen sections.',
  CLEARED: 'Cleared away for a clean start.',
  NOT_CLEARED: 'Students left something in this shell, so it is not cleared.',
  DATES_LEFT: 'Its dates are others than the version’s; this delivery leaves them.',
};
