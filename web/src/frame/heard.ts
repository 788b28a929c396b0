/**
 * Hears the answer to what was asked last: one that comes after the next question is left. Gives
 * what ends the hearing, for the effect that has asked.
 */
export function heard<T>(
  asked: Promise<T>,
  then: (answer: T) => void,
  failed: (trouble: unknown) => void,
): () => void {
  let over = false;
  asked.then(
    (a) => over || then(a),
    (e) => over || failed(e),
  );
  return () => (over = true);
}
