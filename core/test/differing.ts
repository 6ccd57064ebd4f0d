/** Where two answers differ by more than 1e-9 of the figure, as paths. */
export function differing(was: unknown, now: unknown, path = ''): string[] {
  if (typeof was === 'number' && typeof now === 'number') {
    return Math.abs(was - now) <= 1e-9 * Math.max(1, Math.abs(was)) ? [] : [`${path}: ${was} was, ${now} is`]
  }
  if (typeof was !== 'object' || typeof now !== 'object' || was === null || now === null) {
    return Object.is(was, now) ? [] : [`${path}: ${JSON.stringify(was)} was, ${JSON.stringify(now)} is`]
  }
  const keys = new Set([...Object.keys(was), ...Object.keys(now)])
  const at = (o: object, key: string) => (o as Record<string, unknown>)[key]
  return [...keys].flatMap((key) => differing(at(was, key), at(now, key), `${path}.${key}`))
}
