import { useCallback, useEffect, useState } from 'react'

/**
 * What is being entered, kept on the device at every change: a crash, a flat battery or a reload loses nothing. Cleared
 * once it is recorded.
 */
export function useDraft<T>(key: string, initial: T): [T, (change: T | ((before: T) => T)) => void, () => void] {
  const stored = `geolabe.draft.${key}`
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = localStorage.getItem(stored)
      return kept === null ? initial : (JSON.parse(kept) as T)
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
