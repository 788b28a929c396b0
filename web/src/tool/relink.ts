import type { Schemas } from '../api/client';

/** What is sent along, one a line: name=value; an empty value takes the name away. */
export function parametersOf(text: string): Record<string, string> {
  const all: Record<string, string> = {};
  for (const line of text.split('\n')) {
    const at = line.indexOf('=');
    const name = (at < 0 ? line : line.slice(0, at)).trim();
    if (name) all[name] = at < 0 ? '' : line.slice(at + 1).trim();
  }
  return all;
}

/** What a rule sends along, in words. */
export function parameterLines(parameters: Record<string, string>): string[] {
  return Object.entries(parameters).map(([n, v]) => (v ? `sends ${n}=${v}` : `without ${n}`));
}

/** What a rule is limited to, in words. */
export function limits(
  rule: Schemas['RelinkEntry'],
  masters: readonly { id: string; code: string }[],
  terms: readonly { id: string; title: string }[],
  campuses: readonly { sourcedId: string; name: string }[] = [],
): string[] {
  const code = (id: string) => masters.find((m) => m.id === id)?.code ?? 'a master out of reach';
  const title = (id: string) => terms.find((t) => t.id === id)?.title ?? 'another term';
  const campus = (id: string) => campuses.find((c) => c.sourcedId === id)?.name ?? id;
  return [
    rule.masters.length ? `in ${rule.masters.map(code).join(', ')}` : 'in every master',
    rule.terms.length ? rule.terms.map(title).join(', ') : '',
    rule.campuses.length ? `at ${rule.campuses.map(campus).join(', ')}` : '',
    rule.fromDay ? `from ${rule.fromDay}` : '',
    rule.untilDay ? `until ${rule.untilDay}` : '',
  ].filter(Boolean);
}
