/**
 * The entry of a list that is known to be there.
 *
 * @throws RangeError where it is not: a defect of ours, never of an input
 * @example nth([4, 6, 8], 1) // 6
 */
export function nth<T>(list: ArrayLike<T>, i: number): T {
  const entry = list[i]
  if (entry === undefined) throw new RangeError(`no entry ${i} among ${list.length}`)
  return entry
}

/** What a map is known to hold. @throws RangeError where it does not: a defect of ours, never of an input */
export function known<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key)
  if (value === undefined) throw new RangeError(`nothing under ${key}`)
  return value
}
