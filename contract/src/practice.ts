import type {
  Attempt,
  Calibration,
  DriveMarks,
  DrivePoint,
  Fault,
  JudgePoint,
  JudgeResult,
  LegScore,
  LoadPoint,
  Mistake,
  Plane,
  SequenceMarks,
  SequencePoint,
  SignalFault,
  SignalMarks,
  Stopped,
} from '@geolabe/core'
import { driveRun, judgeRound, loadRun, sequenceRun, signalRun } from '@geolabe/core'
import { z } from 'zod'

/** What somebody practised, as it was done: everything else follows from it. */
export const practiceRun = z.discriminatedUnion('game', [loadRun, judgeRound, signalRun, driveRun, sequenceRun])
export type PracticeRun = z.infer<typeof practiceRun>
export type Game = PracticeRun['game']

/** A run as it was done, and the score that the device made of it. */
export const practiceRequest = z.strictObject({ run: practiceRun, score: z.number().min(0).max(100) })

/** What load control came to. */
export interface LoadOutcome {
  game: 'load'
  score: number
  passed: boolean
  stopped: Stopped | null
  legs: LegScore[]
  attempts: Attempt[]
  faults: Fault[]
  /** The state on the way was the same as the device had; otherwise it was made with another version. */
  same: boolean
}

/** What a round of judgement came to. */
export type JudgeOutcome = JudgeResult & { game: 'judge' }

/** What a run of signals came to. */
export type SignalOutcome = SignalMarks & { game: 'signal' }

/** What a drive came to. */
export type DriveOutcome = DriveMarks & { game: 'drive' }

/** What an order of work came to. */
export type SequenceOutcome = SequenceMarks & { game: 'sequence' }

/** What a run came to, as the records have worked it out again from what was done. */
export type PracticeResult = LoadOutcome | JudgeOutcome | SignalOutcome | DriveOutcome | SequenceOutcome

export type PracticeRecord = PracticeResult & {
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

/** What can be practised on a machine, from its own data. */
export interface PracticeGames {
  machines: {
    machine: string
    /** The planes in which its load can be moved; none: not offered. */
    load: Plane[]
    signal: boolean
    drive: boolean
    sequence: boolean
    /** What can be wrong with its tables as somebody reads them, and with how it stands; none: not offered. */
    judge: Mistake[]
  }[]
}

/** What somebody got wrong on a kind of machine, and when it comes again. */
export interface PointLine {
  kind: string
  /** The machine on which it was shown last. */
  machine: string
  machineName: string
  game: Game
  point: LoadPoint | JudgePoint | SignalFault | DrivePoint | SequencePoint
  dueAt: string
  /** How much of it is left now. */
  recall_share: number
}

/** One's own weak points, what is due first; how sure against how right, from twenty answers on. */
export interface PracticePoints {
  points: PointLine[]
  calibration: Calibration | null
}

/** One skill on one machine, its last attempts, oldest first. */
export interface SkillLine {
  machine: string
  machineName: string
  game: Game
  /** Points of a run; how far a catch was off its moment, s; how long an answer took, s. */
  measure: 'score' | 'off_s' | 'answer_s'
  /** Of a catch. */
  plane: Plane | null
  /** Of a catch along the boom: the tip brought in, or let out. */
  inward: boolean | null
  values: number[]
}

export interface PracticeProgress {
  skills: SkillLine[]
}
