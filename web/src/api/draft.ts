import { useCallback, useEffect, useRef, useState } from 'react'

const storedAs = (key: string) => `geolabe.draft.${key}`

/** Begins what another screen will enter: kept on the device as if it had been typed there. */
export function beginDraft<T>(key: string, value: T): void {
  try {
    localStorage.setItem(storedAs(key), JSON.stringify(value))
  } catch {
    // A full or forbidden store: the other screen begins with its own.
  }
}

/**
 * What is being entered, kept on the device as soon as the finger rests: a crash, a flat battery or a reload loses nothing. Cleared
 * once it is recorded.
 *
 * @param fits whether what was kept is of today's shape: after an update an older draft is left aside rather than shown half
 */
export function useDraft<T>(
  key: string,
  initial: T | (() => T),
  fits: (kept: T) => boolean = () => true,
): [T, (change: T | ((before: T) => T)) => void, () => void] {
  const stored = storedAs(key)
  const [value, setValue] = useState<T>(() => {
    try {
      const kept = localStorage.getItem(stored)
      const draft = kept === null ? null : (JSON.parse(kept) as T)
      if (draft !== null && fits(draft)) return draft
    } catch {
      // Not to be read: begun anew.
    }
    return initial instanceof Function ? initial() : initial
  })
  const unwritten = useRef<{ value: T } | null>(null)
  const write = useCallback(() => {
    if (!unwritten.current) return
    try {
      localStorage.setItem(stored, JSON.stringify(unwritten.current.value))
    } catch {
      // A full or forbidden store: the screen still works, it only keeps less.
    }
    unwritten.current = null
  }, [stored])
  // Not once a move of a finger: as soon as it rests, and whenever the page is hidden or left.
  useEffect(() => {
    unwritten.current = { value }
    const timer = setTimeout(write, 120)
    return () => clearTimeout(timer)
  }, [value, write])
  useEffect(() => {
    addEventListener('pagehide', write)
    document.addEventListener('visibilitychange', write)
    return () => {
      removeEventListener('pagehide', write)
      document.removeEventListener('visibilitychange', write)
      write()
    }
  }, [write])
  const clear = useCallback(() => {
    unwritten.current = null
    localStorage.removeItem(stored)
  }, [stored])
  return [value, setValue, clear]
}
