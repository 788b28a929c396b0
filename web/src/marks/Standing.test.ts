import { render } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import Standing from './Standing.svelte';
import { paints, standingParts, standingPaths, type Look } from './standingShapes';

describe('the standing mark', () => {
  const fills = (look: Look) => standingParts(look).map((p) => p.paint.fill);
  const bars = (look: Look) => standingParts(look)[1].d.match(/h4\.6/g)?.length;

  it('is a full disc when the master has arrived whole', () => {
    const paths = render(Standing, {}).container.querySelectorAll('path');
    expect(paths).toHaveLength(1);
    expect(paths[0]).toHaveAttribute('stroke', 'var(--calm)');
    expect(paths[0]).toHaveAttribute('stroke-linecap', 'round');
  });

  it('carries one barb for each version behind, three at the most', () => {
    expect([1, 2, 7].map((behind) => bars({ behind }))).toEqual([1, 2, 3]);
  });

  it('is filled only as far as the master has arrived', () => {
    expect(fills({ share: 0.5 })).toEqual(['none', 'var(--calm)']);
  });

  it('is a dashed ring where it never arrived', () => {
    expect(standingParts({ never: true })[0].paint.dash).toBeDefined();
  });

  it('has a diamond where something was changed, and a stroke where a person is needed', () => {
    expect(fills({ changed: true })).toContain('var(--own)');
    expect(standingParts({ failed: true }).at(-1)?.paint.stroke).toBe('var(--harm)');
  });

  it('is drawn with all others of its colours in one path', () => {
    const looks = Array.from({ length: 3000 }, (_, i) => ({ behind: i % 4, changed: i % 7 === 0 }));
    const paths = standingPaths(looks, (n) => ({ x: n * 20, y: 0 }));
    expect(paths.length).toBeLessThan(8);
    expect(paths.map((p) => paints.indexOf(p.paint))).toEqual(
      paths.map((p) => paints.indexOf(p.paint)).sort((a, b) => a - b),
    );
  });
});
