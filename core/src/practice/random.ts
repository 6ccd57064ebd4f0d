/**
 * Figures from nought to one that look random and are the same for a seed on every device. Each purpose has a stream of its own, so that what one
 * takes never shifts another.
 *
 * @param seed a whole number; its lowest 32 bits count
 * @param purpose left out: the bare stream of the seed
 * @example randomFrom(1)() // 0.627073940588
 */
export function randomFrom(seed: number, purpose = ''): () => number {
  let a = seed | 0
  for (const c of purpose) a = Math.imul(a ^ (c.codePointAt(0) ?? 0), 0x01000193)
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
