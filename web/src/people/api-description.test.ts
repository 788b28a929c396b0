import { expect, it } from 'vitest';
import { calls } from './api-description';

it('tells of each call what it takes and what it answers with', () => {
  const found = calls({
    components: { schemas: { Begun: { properties: { id: { type: 'string' } } } } },
    paths: {
      '/api/b': { get: { parameters: [{ name: 'q', in: 'query' }], responses: {} } },
      '/api/a': {
        post: {
          requestBody: { content: { 'application/octet-stream': {} } },
          responses: {
            202: {
              content: {
                'application/json': { schema: { items: { $ref: '#/components/schemas/Begun' } } },
              },
            },
            400: {},
          },
        },
      },
    },
  });
  expect(found).toEqual([
    { method: 'POST', path: '/api/a', takes: 'the file itself', gives: '202 list of { id }' },
    { method: 'GET', path: '/api/b', takes: '?q (may be left out)', gives: '' },
  ]);
});
