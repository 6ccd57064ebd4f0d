import { useEffect } from 'react'

/** Is somebody typing? Then letters are letters. */
export const typing = (e: KeyboardEvent) =>
  e.target instanceof HTMLElement && (e.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName))

export function useHelpKey(open: () => void) {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.key === '?' && !typing(e)) open()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [open])
}
