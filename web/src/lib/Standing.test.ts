import { render } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import Standing from './Standing.svelte';

describe('the standing mark', () => {
  const draw = (props: object) => render(Standing, props).container.querySelector('svg')!;

  it('is a full disc when the master has arrived whole', () => {
    const svg = draw({});
    expect(svg.querySelectorAll('circle')).toHaveLength(1);
    expect(svg.querySelector('circle')).toHaveAttribute('fill', 'var(--calm)');
    expect(svg.querySelectorAll('path')).toHaveLength(0);
  });

  it('carries one barb for each version behind, three at the most', () => {
    expect(draw({ behind: 1 }).querySelectorAll('path')).toHaveLength(2);
    expect(draw({ behind: 2 }).querySelectorAll('path')).toHaveLength(3);
    expect(draw({ behind: 7 }).querySelectorAll('path')).toHaveLength(4);
  });

  it('is filled only as far as the master has arrived', () => {
    const svg = draw({ share: 0.5 });
    expect(svg.querySelector('circle')).toHaveAttribute('fill', 'none');
    expect(svg.querySelectorAll('path')).toHaveLength(1);
  });

  it('is a dashed ring where it never arrived', () => {
    expect(draw({ never: true }).querySelector('circle')).toHaveAttribute('stroke-dasharray');
  });

  it('has a diamond where something was changed, and a stroke where a person is needed', () => {
    expect(draw({ changed: true }).querySelector('path')).toHaveAttribute('fill', 'var(--own)');
    expect(draw({ failed: true }).querySelector('path')).toHaveAttribute('stroke', 'var(--harm)');
  });
});
