/** A figure that was found by search then, and in closed form today: how far apart the two may be, relative and, for angles, in degrees. */
export const searched = { figure: 1e-6, angle_deg: 0.1 }

/**
 * The answer of today with the figures of then where the two are one but for the search, so that what is left differs for another reason.
 * @param isAngle by its key, or its place in a list
 */
export function asSearched(was: unknown, now: unknown, isAngle: (path: string) => boolean, path = ''): unknown {
  if (typeof was === 'number' && typeof now === 'number') {
    const apart = Math.abs(was - now)
    const turned = Math.min(apart, Math.abs(360 - apart))
    const same = isAngle(path) ? turned <= searched.angle_deg : apart <= searched.figure * Math.max(1, Math.abs(was))
    return same ? was : now
  }
  if (typeof was !== 'object' || typeof now !== 'object' || was === null || now === null) return now
  const then = was as Record<string, unknown>
  if (Array.isArray(now)) return now.map((v, i) => asSearched(then[i], v, isAngle, `${path}.${i}`))
  return Object.fromEntries(Object.entries(now).map(([key, v]) => [key, asSearched(then[key], v, isAngle, `${path}.${key}`)]))
}

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
