import type { Schemas } from '../src/api/client';

/** An item of a forecast: a page that is new in one section, unless said otherwise. */
export const row = (
  key: string,
  more: Partial<Schemas['ForecastRow']> = {},
): Schemas['ForecastRow'] => ({
  key,
  kind: 'PAGE',
  title: key,
  rule: 'ADAPTABLE',
  inVersion: true,
  forNobody: false,
  chosen: 1,
  along: 0,
  leftOut: false,
  sections: 1,
  steps: {},
  ...more,
});
