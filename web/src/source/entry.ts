import type { Schemas } from '../api/client';

type Item = Schemas['ItemView'];

/** What is written of an item, while it is written. */
export function entryOf(i: Item) {
  return {
    title: i.title,
    html: i.html,
    points: i.points ?? '',
    address: i.address ?? '',
    opens: i.opens ?? '',
    due: i.due ?? '',
    closes: i.closes ?? '',
    within: {
      start: i.within?.start ?? '',
      everyWeeks: i.within?.everyWeeks ?? 0,
      oneAfterOther: i.within?.oneAfterOther ?? false,
    },
    category: i.category ?? '',
    rubric: i.rubric ?? '',
    groupSet: i.groupSet ?? '',
    attempts: i.attempts ? String(i.attempts) : '',
    minutes: i.minutes ? String(i.minutes) : '',
    weight: i.weight ?? '',
    handIn: {
      ways: [...(i.handIn?.ways ?? [])],
      endings: (i.handIn?.endings ?? []).join(', '),
      checked: i.handIn?.checked ?? false,
    },
    criteria: i.criteria.map((c) => ({ ...c, outcome: c.outcome ?? '' })),
    groups: i.groups.join('\n'),
    parameters: Object.entries(i.parameters).map(([name, value]) => ({ name, value })),
    newWindow: i.newWindow ?? false,
    oneTerm: i.lasting === 'ONE_TERM',
    subject: (i.subject ?? '') as NonNullable<Item['subject']> | '',
    entries: i.entries.map((e) => ({ label: e.label ?? '', value: e.value ?? '' })),
    attached: i.attached.map((f) => ({ sha256: f.sha256 ?? '', name: f.name ?? '' })),
    file: null as { sha256: string; name: string } | null,
  };
}

export type Entry = ReturnType<typeof entryOf>;

const list = (text: string, by: RegExp) =>
  text
    .split(by)
    .map((t) => t.trim())
    .filter(Boolean);

/** What differs between two states of an entry, as a change. */
export function changeOf(now: Entry, before: Entry): Schemas['ItemChange'] {
  const c: Schemas['ItemChange'] = {};
  const differs = (name: keyof Entry) => JSON.stringify(now[name]) !== JSON.stringify(before[name]);
  const plain = [
    'title',
    'html',
    'points',
    'address',
    'opens',
    'due',
    'closes',
    'category',
    'rubric',
    'groupSet',
    'attempts',
    'minutes',
    'weight',
  ] as const;
  for (const name of plain) if (differs(name)) c[name] = now[name];
  if (differs('handIn'))
    c.handIn = {
      ways: now.handIn.ways,
      endings: list(now.handIn.endings, /[\s,;]+/).map((e) => e.replace(/^\./, '')),
      checked: now.handIn.checked,
    };
  if (differs('within'))
    c.within = { ...now.within, everyWeeks: Number(now.within.everyWeeks) || 0 };
  if (differs('criteria')) c.criteria = now.criteria.filter((x) => x.text.trim());
  if (differs('groups')) c.groups = list(now.groups, /\n/);
  if (differs('parameters'))
    c.parameters = Object.fromEntries(
      now.parameters.filter((p) => p.name.trim()).map((p) => [p.name.trim(), p.value]),
    );
  if (differs('newWindow')) c.newWindow = now.newWindow;
  if (differs('oneTerm')) c.oneTerm = now.oneTerm;
  if (differs('subject') && now.subject) c.subject = now.subject;
  if (differs('entries')) c.entries = now.entries.filter((e) => e.label.trim());
  if (differs('attached')) c.attached = now.attached;
  if (now.file) c.file = now.file;
  return c;
}

/**
 * What an entry becomes when the item behind it changed: fields that were not touched are the item's
 * now; touched ones stay.
 *
 * @returns also whether somebody else changed a field that was touched here
 */
export function merged(mine: Entry, before: Entry, now: Entry): { entry: Entry; clash: boolean } {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const entry: Record<string, unknown> = { ...now };
  let clash = false;
  for (const name of Object.keys(now) as (keyof Entry)[]) {
    if (same(mine[name], before[name]) || same(mine[name], now[name])) continue;
    entry[name] = mine[name];
    clash ||= !same(now[name], before[name]);
  }
  return { entry: entry as Entry, clash };
}
