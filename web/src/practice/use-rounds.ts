import { useState } from 'react'
import { type Given, useGiven, useLeave } from './given'
import { levelAfter, newSeed } from './level'

/** What a round is drawn from. */
export interface How {
  seed: number
  level: number
}

interface Rounds<Run> {
  /** The try that it is; null: practice of one's own. */
  given: Given | null
  how: How
  /** Another one with every round, also of the same. */
  turn: number
  /** The round that is over, until the next begins. */
  run: Run | null
  over: (run: Run) => void
  again: () => void
  /** Another, a little harder or easier. */
  next: (passed: boolean) => void
  leave: (to?: string) => void
}

/**
 * Rounds of a game one after the other: the one that an exam gives, or one that nobody has had yet.
 *
 * @param drawn a seed for a level
 */
export function useRounds<Run>(level: number, drawn: (level: number) => number = newSeed): Rounds<Run> {
  const [given, leave] = [useGiven(), useLeave()]
  const [how, setHow] = useState<How>(() => ({ seed: given?.seed ?? drawn(level), level }))
  const [turn, setTurn] = useState(0)
  const [run, over] = useState<Run | null>(null)
  const begin = (to: How) => {
    over(null)
    setHow(to)
    setTurn(turn + 1)
  }
  return {
    given,
    how,
    turn,
    run,
    over: (r) => over(r),
    again: () => begin({ ...how }),
    next: (passed) => {
      const to = levelAfter({ level: how.level, passed })
      begin({ seed: drawn(to), level: to })
    },
    leave,
  }
}

/** What is made for a round, or what refused it. */
export function orRefused<T extends object>(make: () => T): T | { refused: unknown } {
  try {
    return make()
  } catch (e) {
    return { refused: e }
  }
}
