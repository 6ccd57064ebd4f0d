import { type Case, type Extension, type Finding, type MatKind, nearestRemedies, type Remedy } from '@geolabe/core'

export interface Question {
  id: number
  case: Case
  /** Findings to put right, gravest first. */
  failed: Finding[]
  mats: readonly MatKind[]
  /** What something stands in the way of: leg, extension, mat (null: the pad alone). */
  blocked: { outrigger: string; extension: Extension; mat: string | null }[]
}

export interface Advice {
  id: number
  changes: { finding: string; changes: Remedy[] }[]
}

/** Searches run beside the page, so that dragging stays smooth. */
self.onmessage = ({ data: q }: MessageEvent<Question>) => {
  const means = {
    mats: q.mats,
    canStand: (outrigger: string, extension: Extension, mat: string | null) =>
      !q.blocked.some((b) => b.outrigger === outrigger && b.extension === extension && b.mat === mat),
  }
  const advice: Advice = {
    id: q.id,
    changes: q.failed.map((f) => ({ finding: f.id, changes: nearestRemedies(q.case, f, means) })),
  }
  self.postMessage(advice)
}
