import type { Attempt, Fault, LegScore, Stopped } from '@geolabe/core'
import { practiceRun } from '@geolabe/core'
import { z } from 'zod'

/** A run as it was done, and the score that the device made of it. */
export const practiceRequest = z.strictObject({ run: practiceRun, score: z.number().min(0).max(100) })

/** What a run came to, as the records have worked it out again from its inputs. */
export interface PracticeResult {
  score: number
  passed: boolean
  stopped: Stopped | null
  legs: LegScore[]
  attempts: Attempt[]
  faults: Fault[]
  /** The state on the way was the same as the device had; otherwise it was made with another version. */
  same: boolean
}

export interface PracticeRecord extends PracticeResult {
  id: string
  machine: string
  machineName: string
  machineRevision: number
  level: number
  seed: number
  at: string
  /** What the device had made of it, where that is another score. */
  claimed: number | null
}

/** One's own runs, newest first; `next` begins the following page. */
export interface PracticePage {
  runs: PracticeRecord[]
  next: string | null
}
