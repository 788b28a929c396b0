import { api, got } from '../api/client';

const PAUSE = 500;

/**
 * Has shells read again and waits until they are.
 *
 * @param tell how many are still to be read, whenever that is known
 */
export async function readAgain(sections: string[], tell: (left: number) => void = () => {}) {
  const body = { sections };
  let { sections: left } = await got(api.POST('/api/deliveries/readings', { body }));
  while (left) {
    tell(left);
    await new Promise((r) => setTimeout(r, PAUSE));
    left = (await got(api.POST('/api/deliveries/readings/left', { body }))).sections;
  }
}
