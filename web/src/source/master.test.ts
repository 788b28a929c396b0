import { afterEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve, type Asked } from '../../test/server-stand-in';
import { OpenMaster } from './master.svelte';

afterEach(() => vi.unstubAllGlobals());

function open(patch: () => Response): { work: OpenMaster; asked: Asked[] } {
  const asked = serve({
    'GET /api/masters/{id}': { versions: [{ number: 1 }] },
    'GET /api/masters/{id}/versions/{number}/outline': [],
    'GET /api/masters/{id}/changes': [],
    'PATCH /api/masters/{id}/draft/items/{key}': patch,
    'POST /api/masters/{id}/versions': { id: 'v' },
  });
  const work = new OpenMaster(
    'm',
    () => 0,
    () => 'k',
  );
  return { work, asked };
}

const calls = (asked: Asked[]) => asked.map((a) => a.method);

describe('changes of a draft', () => {
  it('are carried out one after the other: a version is frozen with what was saved before', async () => {
    const { work, asked } = open(() => Response.json({}));
    const saved = work.edit({ title: 'Loads' });
    await work.freeze('Better');
    expect(await saved).toBe(true);
    expect(calls(asked).indexOf('POST')).toBeGreaterThan(calls(asked).indexOf('GET'));
    expect(work.trouble).toBeNull();
  });

  it('wait in vain where the one before failed: no version is frozen without it', async () => {
    const { work, asked } = open(() => refusal(422, 'It needs a title.', 'Write one.'));
    const saved = work.edit({ title: '' });
    await work.freeze('Better');
    expect(await saved).toBe(false);
    expect(calls(asked)).not.toContain('POST');
    expect(work.trouble).toMatchObject({ status: 422 });
    await work.freeze('Again');
    expect(calls(asked)).toContain('POST');
  });
});
