import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { inOrder, versionsOf } from './together';

const master = (id: string, everySection: boolean, versions: number) =>
  ({
    id,
    everySection,
    versions: Array.from({ length: versions }, (_, n) => ({ id: `${id}${n + 1}` })),
  }) as Schemas['MasterView'];
const frame = master('f', true, 3);
const course = master('c', false, 2);
const piece = master('p', false, 1);

describe('several masters as one order', () => {
  it('brings the frame first, then the course, then the small piece', () => {
    expect(inOrder(course, [piece, frame]).map((m) => m.id)).toEqual(['f', 'c', 'p']);
    expect(inOrder(frame, [course]).map((m) => m.id)).toEqual(['f', 'c']);
  });
  it('brings the newest of each, but of its own the chosen one', () => {
    expect(versionsOf([frame, course, master('d', false, 0)], course, 'c1')).toEqual(['f3', 'c1']);
  });
});
