import { useCallback, useEffect, useState } from 'react'

/**
 * What is being entered, kept on the device at every change: a crash, a flat battery or a reload loses nothing. Cleared
 * once it is recorded.
 *
 * @param fits whether what was kept is of today's shape: after an update an older draft is left aside rather than shown half
 */
export function useDraft<T>(
  key: string,
  initial: T,
  fits: (kept: T) => boolean = () => true,
): [T, (change: T | ((before: T) => T)) => void, () => void] {
  const stored = `geolabe.draft.${key}`
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = localStorage.getItem(stored)
      const draft = kept === null ? null : (JSON.parse(kept) as T)
      return draft !== null && fits(draft) ? draft : initial
    } catch {
      return initial
    }
  })
  useEffect(() => {
    try {
      localStorage.setItem(stored, JSON.stringify(value))
    } catch {
      // A full or forbidden store: the screen still works, it only keeps less.
    }
  }, [stored, value])
  const clear = useCallback(() => localStorage.removeItem(stored), [stored])
  return [value, setValue, clear]
}
