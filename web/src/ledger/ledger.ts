import { many } from '../marks/words';

/** What is looked for in the ledger, as an address says it; what is empty does not matter. */
export interface Asked {
  section: string;
  master: string;
  version: string;
  item: string;
  delivery: string;
  person: string;
  from: string;
  to: string;
}

/** The same as a call takes it. */
export function query(a: Asked) {
  const version = Number.parseInt(a.version, 10);
  const { section, master, item, delivery, person, from, to } = a;
  const some = Object.fromEntries(
    Object.entries({ section, master, item, delivery, person, from, to }).filter(([, v]) => v),
  );
  return version > 0 ? { ...some, version } : some;
}

/** Where all of it is to be had as a table. */
export function file(a: Asked, format: 'CSV' | 'XLSX'): string {
  const said = new URLSearchParams({ format });
  for (const [name, value] of Object.entries(query(a))) said.set(name, String(value));
  return '/api/ledger/receipts/file?' + said.toString();
}

export function said(a: Asked, n: number, more: boolean): string {
  const days = [a.from && `from ${a.from}`, a.to && `to ${a.to}`].filter(Boolean).join(' ');
  const count = more ? `The newest ${n} receipts` : many(n, 'receipt');
  return days ? `${count}, ${days}` : count;
}
