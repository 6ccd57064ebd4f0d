import type { Game, PracticeRecord } from '@geolabe/contract'
import { first_level } from '@geolabe/core'

/** A little harder with every pass, easier by four times that with every miss: where four in five are passed it stays. */
const [harder, easier] = [0.02, 0.08]
const within = (level: number) => Math.round(100 * Math.max(0, Math.min(1, level))) / 100

/** How hard it is after a run; nothing was practised before: easy. */
export const levelAfter = (r: Pick<PracticeRecord, 'level' | 'passed'> | undefined): number =>
  r ? within(r.level + (r.passed ? harder : -easier)) : first_level

/** The last run of a game on a machine. */
export const lastOf = (runs: readonly PracticeRecord[], machine: string, game: Game): PracticeRecord | undefined =>
  runs.find((r) => r.machine === machine && r.game === game)

/** One that nobody has had yet. */
export const newSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0] ?? 1
