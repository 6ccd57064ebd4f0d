import {
  driveRun,
  first_level,
  type LoadSet,
  loadRun,
  loadSet,
  longest_ticks,
  maybeWords,
  type Offer,
  type Practised,
  tick_s,
} from '@geolabe/core'
import { z } from 'zod'
import { clientId, type PersonRef, personRef } from './common'
import type { Game, PracticeGames, PracticeResult, PracticeRun } from './practice'
import { fileSignature } from './shift'

export const games = ['load', 'drive', 'sequence', 'signal', 'judge'] as const satisfies readonly Game[]
const game = z.enum(games)
const isoDay = z.iso.date()

/** An assessor sets an exam: who, on which machine, at what, how hard, how often, until when. Its seeds nobody knows before a try begins. */
export const examRequest = z.strictObject({
  id: clientId,
  person: z.string().min(1, 'Choose who is to be assessed.').max(80),
  machine: z.string().min(1, 'Choose the machine.').max(80),
  game: z.enum(games, 'Choose what is practised.'),
  level: z.number().min(first_level, 'No easier than practice begins.').max(1),
  tries: z.int().min(1, 'At least one try.').max(10, 'At most ten tries.'),
  until: z.iso.date('Give the last day.'),
  /** Of load control: what the course does not say by itself; null: nothing. */
  settings: loadSet.nullable().default(null),
  /** No try goes on before the assessor has given the word. */
  word: z.boolean().default(false),
})
export type ExamRequest = z.infer<typeof examRequest>

/** A try begins: its id is the id that the run will carry. */
export const beginTryRequest = z.strictObject({ id: clientId })

/** The assessor gives the word: the try that waits for it goes on. */
export const wordRequest = z.strictObject({})

/** All that was done in a try so far, and how many ticks it is under way: what can be watched as it goes. */
export const trySoFar = z.strictObject({
  ticks: z.int().min(1).max(longest_ticks),
  run: z.discriminatedUnion('game', [loadRun, driveRun]),
})
export type TrySoFar = z.infer<typeof trySoFar>

/** What has come of a try that is under way; null: nothing yet, or it is over. */
export interface TryWatched {
  soFar: TrySoFar | null
}

/** Games that can be watched as they go, and seen again. */
export const isWatched = (g: Game): boolean => g === 'load' || g === 'drive'

/** What the assessor notes of a try: at a moment of it or of all of it, with or without a score by hand. The computed score stands beside it. */
export const tryNoteRequest = z
  .strictObject({
    id: clientId,
    /** Seconds into the run; null: of all of it. */
    at_s: z.number().min(0).max(1200).nullable(),
    score: z.number().min(0, 'From 0 to 100.').max(100, 'From 0 to 100.').nullable(),
    words: maybeWords,
  })
  .refine((n) => n.score !== null || n.words.length > 0, { message: 'Say what you noted, or give a score.', path: ['words'] })
export type TryNoteRequest = z.infer<typeof tryNoteRequest>

export const certificateRequest = z.strictObject({ id: clientId, exam: clientId, words: maybeWords })
export type CertificateRequest = z.infer<typeof certificateRequest>

export interface TryNote {
  id: string
  at: string
  at_s: number | null
  score: number | null
  words: string
}

/** One try of an exam. */
export interface ExamTry {
  id: string
  number: number
  begunAt: string
  seed: number
  /** When the word was given; null: not yet, or none was wanted. */
  wordAt: string | null
  /** Null: begun and not kept; it counts as a try all the same. */
  result: PracticeResult | null
  /** When the records had it. */
  keptAt: string | null
  /** Of its own time; null: not kept, or none of it runs by the clock. */
  lasted_s: number | null
  /** What the device had made of it, where that is another score. */
  claimed: number | null
  notes: TryNote[]
}

export interface Exam {
  id: string
  person: PersonRef
  assessor: PersonRef
  machine: { id: string; name: string; revision: number }
  /** What is practised of the machine is another by now: no further try. */
  machineChanged: boolean
  game: Game
  level: number
  tries: number
  until: string
  settings: LoadSet | null
  word: boolean
  setAt: string
  made: ExamTry[]
  certificate: string | null
}

/** Exams that one sat or is to sit, and those that one has set; newest first. */
export interface ExamPage {
  exams: Exam[]
}

/** What a try runs on. */
export interface BegunTry {
  id: string
  seed: number
  level: number
  settings: LoadSet | null
  word: boolean
}

/** A try with everything that was done in it. */
export interface TriedRun {
  run: PracticeRun
}

/** A certificate of practice, as it is signed and handed on. */
export const practiceCertificate = z.strictObject({
  format: z.literal('geolabe.certificate/1'),
  id: z.uuid(),
  says: z.string(),
  organisation: z.strictObject({ id: z.string(), name: z.string() }),
  person: personRef,
  machine: z.strictObject({ id: z.string(), name: z.string(), kind: z.string(), revision: z.int() }),
  game,
  level: z.number(),
  /** What the assessor set of it; null: nothing. */
  settings: loadSet.nullable(),
  /** Tries that were passed. */
  runs: z
    .array(
      z.strictObject({
        id: z.uuid(),
        seed: z.int(),
        at: z.string(),
        score: z.number(),
        /** By the assessor's own hand, where they gave one. */
        scoreByHand: z.number().nullable(),
        /** What went wrong in it all the same. */
        errors: z.array(z.string()),
        /** SHA-256 of the run as it was done, its fields in order of their names. */
        sha256: z.string(),
      }),
    )
    .min(1),
  /** Of the exam, passed or not. */
  triesMade: z.int(),
  assessor: personRef,
  words: z.string(),
  issuedOn: isoDay,
  validUntil: isoDay,
  signature: fileSignature.optional(),
})
export type PracticeCertificate = z.infer<typeof practiceCertificate>

export interface CertificateLine {
  file: PracticeCertificate
  /** In date; out of date; what was practised on it has changed since. */
  state: 'in-date' | 'expired' | 'earlier-machine'
}

export interface CertificatePage {
  certificates: CertificateLine[]
}

/** What can be practised on a machine, as far as a site may ask for it. */
export const offerIn = (of: PracticeGames['machines'][number]): Offer =>
  of.load || of.drive ? 'levers' : of.signal || of.sequence || of.judge.length > 0 ? 'other' : 'nothing'

/** Done with the machine's own levers, and moving it or its load. */
export const isByLevers = (of: Game): boolean => of === 'load' || of === 'drive'

/** What of all games there is on a machine. */
export const gamesIn = (of: PracticeGames['machines'][number]): Game[] =>
  games.filter((g) => {
    const there = of[g]
    return typeof there === 'boolean' ? there : there.length > 0
  })

/**
 * How long a run lasted by its own time, seconds; null: nothing of it runs by the clock.
 *
 * @param ticks of a run that says them
 */
export function lastedOf(run: { seed: number; level: number; ticks?: number }, result: PracticeResult): number | null {
  switch (result.game) {
    case 'load':
      return (run.ticks ?? 0) * tick_s
    case 'drive':
    case 'sequence':
      return result.time_s
    case 'signal':
      return result.lasts_s
    case 'judge':
      return null
  }
}

/** What is on record of oneself, by kind of machine. */
export interface PractisedPage {
  kinds: Record<string, Practised>
}
