/** A short sign for any text, the same in every run: 128 bits (four lanes of FNV-1a, each begun and stirred its own way). */
export function digestOf(text: string): string {
  const lanes = [0x811c9dc5, 0x01000193, 0x9e3779b9, 0x85ebca6b];
  for (let k = 0; k < text.length; k++) {
    const code = text.charCodeAt(k);
    for (let n = 0; n < 4; n++) {
      const mixed = Math.imul(lanes[n]! ^ code, PRIMES[n]!);
      lanes[n] = mixed ^ (mixed >>> 13);
    }
  }
  return lanes.map((lane) => (lane >>> 0).toString(36).padStart(7, '0')).join('');
}
const PRIMES = [0x01000193, 0x5bd1e995, 0xcc9e2d51, 0x1b873593];
