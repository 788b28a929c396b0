import type { Schemas } from '../api/client';
import type { Order } from './order';

type Where = Pick<Order, 'into' | 'module' | 'side' | 'neighbour'>;

/** Each item where the version has it. */
export const own: Where = { into: 'OWN', module: '', side: 'END', neighbour: '' };

/** The named place; none where items go to their own. */
export function into(o: Order): Schemas['Place'] | undefined {
  if (o.what !== 'SOME' || o.into === 'OWN' || !o.module) return undefined;
  const nth = o.into === 'NTH' ? Number(o.module) || 0 : 0;
  const beside = o.side === 'BEFORE' || o.side === 'AFTER';
  return { module: nth ? '' : o.module, nth, side: o.side, neighbour: beside ? o.neighbour : '' };
}

/** A named place as an order says it. */
export function placed(p: Schemas['Place'] | undefined): Where {
  if (!p) return own;
  return {
    into: p.nth ? 'NTH' : 'MODULE',
    module: p.nth ? String(p.nth) : p.module,
    side: p.side,
    neighbour: p.neighbour,
  };
}
