import type { KeyboardEvent } from 'react'

/** What makes part of a drawing a button: touched, or chosen with Enter or Space. */
export const asButton = (label: string, act: () => void) => ({
  role: 'button',
  tabIndex: 0,
  'aria-label': label,
  onClick: act,
  onKeyDown: (e: KeyboardEvent) => {
    if (e.key !== 'Enter' && e.key !== ' ') return
    e.preventDefault()
    act()
  },
})
