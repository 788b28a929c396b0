import type { Schemas } from '../api/client';

type Master = Schemas['MasterView'];

/** The whole college's stand before a course's, which stands before what was added to it. */
export function inOrder(own: Master, others: readonly Master[]): Master[] {
  const wide = others.filter((m) => m.everySection);
  const narrow = others.filter((m) => !m.everySection);
  return [...wide, own, ...narrow];
}

/** The newest version of each, but of one's own the one that is chosen. */
export function versionsOf(order: readonly Master[], own: Master, chosen: string): string[] {
  return order.flatMap((m) => (m.id === own.id ? [chosen] : (m.versions.at(-1)?.id ?? [])));
}
