import { outlineDistance } from '../clearance/standing'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { edgeSetback, heavyFoot_N } from '../ground/edge-setback'
import { known } from '../list'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import type { Point } from '../plane/point'
import type { Support } from '../statics/footprint'
import { type Cell, type Layer, NOT_RATED, UNREACHABLE } from './area'
import type { Bearing } from './bearing'
import type { Check } from './check'
import type { LiftContext } from './context'
import { halfWeight_N, tracksOnGround } from './tracks'

type Foot = Pick<Bearing, 'setting' | 'point'>

/** What lies on the ground under an outrigger, its sides along the machine's. */
function footOf(at: Point, { setting: { mat }, point: { float } }: Foot): { points: Point[]; closed: true; width_m: number } {
  const { length_m, width_m } = mat ?? float
  const [x, y] = [Math.max(length_m, float.length_m) / 2, Math.max(width_m, float.width_m) / 2]
  const corners = [
    [1, 1],
    [-1, 1],
    [-1, -1],
    [1, -1],
  ] as const
  return {
    points: corners.map(([i, j]) => ({ x_m: at.x_m + i * x, y_m: at.y_m + j * y })),
    closed: true,
    width_m: 2 * Math.max(x, y),
  }
}

/** One foot beside one edge; null: further off than the edge can matter. */
function besideEdge(ctx: LiftContext, bearing: Foot, at: Point, edge: Feature, reaction_N: number): Finding | null {
  const foot = footOf(at, bearing)
  const gap_m = outlineDistance(foot, outlineOf(edge, ctx.plan.setup.position))
  const { label, drop_m = 0, soil, structure, engineer } = edge
  const base = { check: 'edge', subject: `${bearing.point.id}-${edge.id}` } as const
  const detail = { label: bearing.point.label, edge: label }
  const judged = (limit: number, reason: 'engineer' | 'setback', source: string): Finding => {
    const utilisation = shareOf(limit, gap_m)
    const verdict = byUse(utilisation, ctx.near_share)
    const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit, utilisation } as const
    return found({ ...base, ...figures, verdict, reason, detail: { ...detail, source } })
  }
  if (engineer)
    return gap_m > 2 * Math.max(drop_m, engineer.least_m) ? null : judged(engineer.least_m, 'engineer', engineer.source)
  if (gap_m > 2 * drop_m) return null
  const rule = edgeSetback({
    padEdgeToToe_m: gap_m,
    depth_m: drop_m,
    soil: soil ?? 'loose',
    padWidth_m: foot.width_m,
    reaction_N,
    structure,
  })
  if (rule.engineer || soil === undefined) return found({ ...base, verdict: 'not-proven', reason: 'ask-engineer', detail })
  return judged(rule.required_m, 'setback', '')
}

/** Everything that presses on the ground: outriggers each with what it carries, tracks each with half of the weight. */
function feetIn(ctx: LiftContext): { bearing: Foot; at: Point; reaction_N: number }[] {
  const { tracks } = ctx.machine
  if (tracks && ctx.support.on === 'tracks')
    return tracksOnGround(tracks).map(({ at, point }) => ({
      bearing: { point, setting: onOwnTrack(point.id) },
      at,
      reaction_N: halfWeight_N(ctx),
    }))
  const at = new Map(ctx.contacts.map((c) => [c.id, c]))
  return ctx.bearings.map((bearing) => ({ bearing, at: known(at, bearing.point.id), reaction_N: bearing.reaction_N }))
}

/** A track lies on no mat of its own. */
const onOwnTrack = (id: string): Foot['setting'] => ({ id, at: { stop: '' }, stroke_m: 0, mat: null, ground: null })

/** What presses on the ground against every edge near it, and that it stands over none. */
export const edgeCheck: Check<'edge'> = {
  id: 'edge',
  since: 1,
  run: (ctx) => {
    const { place, setup } = ctx.plan
    const edges = place.features.filter((f) => f.kind === 'edge')
    const voids = place.features.filter((f) => f.kind === 'void')
    const feet = feetIn(ctx)
    const findings = feet.flatMap(({ bearing, at: contact, reaction_N }) => {
      const over = voids.find((f) => outlineDistance(footOf(contact, bearing), outlineOf(f, setup.position)) === 0)
      if (over) {
        const detail = { label: bearing.point.label, edge: over.label }
        return [
          found({ check: 'edge', subject: `${bearing.point.id}-${over.id}`, verdict: 'outside', reason: 'over-void', detail }),
        ]
      }
      return edges.flatMap((edge) => besideEdge(ctx, bearing, contact, edge, reaction_N) ?? [])
    })
    return findings.length > 0 || feet.length === 0
      ? findings
      : [found({ check: 'edge', verdict: 'inside', reason: 'none-near', detail: {} })]
  },
  // Where tracks stand does not change with the load.
  field: ({ f, lift }) =>
    lift && lift.support.on !== 'tracks' ? f.supports.flatMap((contact, i) => edgeFields(lift, contact, i)) : [],
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: [],
}

/** One foot and every edge near it, by what the foot presses with: a heavy one has no rule of thumb. */
function edgeFields(ctx: LiftContext, contact: Support, i: number): Layer[] {
  const { place, setup } = ctx.plan
  const point = ctx.support.points.find((p) => p.id === contact.id)
  const setting = ctx.settings.find((s) => s.id === contact.id)
  if (!point || !setting) return []
  const foot = { point, setting }
  const over = place.features.filter(
    (f) => f.kind === 'void' && outlineDistance(footOf(contact, foot), outlineOf(f, setup.position)) === 0,
  )
  if (over.length > 0) return over.map((f) => ({ id: `edge:${contact.id}-${f.id}`, weighs: false, useAt: () => UNREACHABLE }))
  const shareAt = (edge: Feature, reaction_N: number) => {
    const f = besideEdge(ctx, foot, contact, edge, reaction_N)
    return f === null ? null : f.verdict === 'not-proven' ? NOT_RATED : (f.utilisation ?? UNREACHABLE)
  }
  return place.features.flatMap((edge) => {
    if (edge.kind !== 'edge') return []
    const [light, heavy] = [shareAt(edge, 0), shareAt(edge, Infinity)]
    if (light === null || heavy === null) return []
    const useAt = ({ reaction }: Cell): number => (light === heavy || (reaction[i] ?? 0) <= heavyFoot_N ? light : heavy)
    return [{ id: `edge:${contact.id}-${edge.id}`, weighs: true, useAt }]
  })
}
