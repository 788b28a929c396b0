/**
 * Calls with a value when it changes; when it changes again and again, as under a key held down,
 * only with the one it rests on.
 */
export function resting(value: () => string, then: (value: string) => void) {
  let last = -Infinity;
  $effect(() => {
    const now = value();
    const quick = performance.now() - last < 200;
    last = performance.now();
    const timer = setTimeout(() => then(now), quick ? 120 : 0);
    return () => clearTimeout(timer);
  });
}
