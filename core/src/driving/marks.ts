import { distance } from '../plane/point'
import type { DriveStop, TruckDrive } from './drive'
import type { TruckEdge } from './driven-truck'
import type { DriveRule, RuleMark } from './rules'

/** What a drive came to. */
export interface DriveMarks {
  rules: { rule: DriveRule; mark: RuleMark }[]
  stopped: DriveStop | null
  /** Least room to an edge, as a share of the room at rest. */
  least: { edge: TruckEdge; share: number }
  /** From the middle of the load to the middle of its place; null: not set down there. */
  off_m: number | null
  time_s: number
  /** What a steady driver takes. */
  steady_s: number
  score: number
  passed: boolean
}

/** What must be kept before anything else counts: nobody hurt, nothing turned over. */
const grave: readonly DriveRule[] = ['people', 'edge-room', 'load-uphill', 'view-blocked']
const weight = (rule: DriveRule) => (grave.includes(rule) ? 3 : 1)
const share: Record<RuleMark, number> = { kept: 1, late: 0.5, missed: 0 }
const points = { rules: 75, place: 15, time: 10 } as const
const pass_score = 75

/**
 * Marks of a drive: nothing where the load was not set down, where anybody or anything was hit, or where it turned over. The time counts only where
 * every grave rule was kept. Whoever missed any rule has not passed, however many points the others gave.
 */
export function driveMarks(d: TruckDrive): DriveMarks {
  const rules = d.rules()
  const off_m = d.finished ? distance(d.load, d.course.bay) : null
  const graveKept = rules.every((r) => !grave.includes(r.rule) || r.mark === 'kept')
  const all = rules.reduce((sum, r) => sum + weight(r.rule), 0)
  const kept = rules.reduce((sum, r) => sum + weight(r.rule) * share[r.mark], 0)
  const place = off_m === null ? 0 : 1 - off_m / (2 * d.course.bay.ring_m)
  const time = graveKept ? Math.min(1, d.steady_s / d.time_s) : 0
  const score = d.finished ? (points.rules * kept) / all + points.place * place + points.time * time : 0
  const failed = rules.some((r) => r.mark === 'missed')
  return {
    rules,
    stopped: d.stopped,
    least: d.least,
    off_m,
    time_s: d.time_s,
    steady_s: d.steady_s,
    score,
    passed: d.finished && !failed && score >= pass_score,
  }
}
