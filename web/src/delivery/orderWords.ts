/** The words of each choice, in the order in which they are offered. */
export const words = {
  what: {
    EVERYTHING: 'everything',
    CHANGED: 'what changed since each section’s version',
    SOME: 'what is ticked below',
  },
  arrival: {
    AS_IN_MASTER: 'shown as in the master',
    HIDDEN: 'hidden on arrival',
    SHOWN: 'shown on arrival',
  },
  dates: {
    ALONG: 'dates taken along',
    LEFT: 'dates there left as they are',
    AWAY: 'dates there left, new items without',
  },
  attachments: {
    ALONG: 'with what is attached',
    OUT: 'without what is attached',
  },
  onto: {
    UP_TO_DATE: 'up to date in place',
    CLEAN: 'cleared first, then started clean',
    IF_EMPTY: 'only once the shell is empty',
  },
  atOnce: {
    '0': 'as quickly as can be',
    '1': 'one section at a time',
    '3': 'at most 3 sections at once',
    '10': 'at most 10 sections at once',
  },
  into: {
    OWN: 'into their places',
    MODULE: 'into the module',
    NTH: 'into module number',
  },
  side: {
    END: 'at its end',
    BEGINNING: 'at its beginning',
    BEFORE: 'before',
    AFTER: 'after',
  },
  emptied: { ASK: 'is asked about', ANEW: 'is filled anew', LEAVE: 'stays empty' },
  clash: {
    KEEP_SECTION: 'the section’s stays',
    TAKE_VERSION: 'the version’s is taken',
    PUT_BACK: 'the version’s is taken, and all that was changed put back',
  },
  weeks: {
    ADD: 'missing week places added',
    LEAVE_OUT: 'weeks without a place left out',
  },
  /** What a clean start means beside the choice of parts. */
  clean: {
    EVERYTHING:
      'What no other master brought goes from each shell, own pages too; then this version stands there. Where students left something on it, nothing is done.',
    CHANGED:
      'Only what changed becomes as the version has it, whatever was changed there, and what it has no more goes. All else in each shell stays.',
    SOME: 'Only what is ticked becomes as the version has it, whatever was changed there. All else in each shell stays.',
  },
  twin: { ADOPT: 'is adopted', ADD: 'gets ours beside it', LEAVE: 'is left alone' },
} as const;
