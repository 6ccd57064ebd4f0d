import { rad } from '../physics'

export interface Spot {
  x: number
  y: number
  z: number
}

/** A straight body with a round section: boom, rope. */
export interface Rod {
  kind: 'rod'
  name: string
  a: Spot
  b: Spot
  radius_m: number
}

/** An upright body: a round or long plan between two heights: load, tail. */
export interface Upright {
  kind: 'upright'
  name: string
  a: { x: number; y: number }
  b: { x: number; y: number }
  radius_m: number
  from_m: number
  to_m: number
}
export type Body = Rod | Upright

export interface Bodies {
  boom: { pivot: { back_m: number; height_m: number }; halfWidth_m: number }
  rope?: { halfWidth_m: number } | undefined
  load?: { halfDiagonal_m: number; height_m: number; swing_m: number; tagLine_m?: number | undefined } | undefined
  tail?: { radius_m: number; halfWidth_m: number; from_m: number; to_m: number } | undefined
}

export interface Pose {
  slew_deg: number
  boom_m: number
  angle_deg: number
  /** From the boom head down to the hook. */
  drop_m: number
}

/** The machine's bodies in one pose, metres, plan frame. */
export function bodiesAt(b: Bodies, p: Pose): Body[] {
  const [c, s] = [Math.cos(p.slew_deg * rad), Math.sin(p.slew_deg * rad)]
  const [ca, sa] = [Math.cos(p.angle_deg * rad), Math.sin(p.angle_deg * rad)]
  const out = (r: number, z: number): Spot => ({ x: r * c, y: r * s, z })
  const foot = out(-b.boom.pivot.back_m, b.boom.pivot.height_m)
  const head = out(p.boom_m * ca - b.boom.pivot.back_m, b.boom.pivot.height_m + p.boom_m * sa)
  const hook = { ...head, z: head.z - p.drop_m }
  const all: Body[] = [{ kind: 'rod', name: 'boom', a: foot, b: head, radius_m: b.boom.halfWidth_m }]
  if (b.rope) all.push({ kind: 'rod', name: 'rope', a: head, b: hook, radius_m: b.rope.halfWidth_m + (b.load?.swing_m ?? 0) })
  if (b.load) {
    const radius_m = b.load.halfDiagonal_m + b.load.swing_m + (b.load.tagLine_m ?? 0)
    all.push({ kind: 'upright', name: 'load', a: hook, b: hook, radius_m, from_m: hook.z - b.load.height_m, to_m: hook.z })
  }
  if (b.tail) {
    const t = b.tail
    all.push({
      kind: 'upright',
      name: 'tail',
      a: { x: 0, y: 0 },
      b: out(-t.radius_m, 0),
      radius_m: t.halfWidth_m,
      from_m: t.from_m,
      to_m: t.to_m,
    })
  }
  return all
}

/** The furthest any point of a body can move while the pose goes straight from one to another, metres. */
export function motionBound_m(b: Bodies, name: string, p: Pose, q: Pose): number {
  const slew = Math.abs(q.slew_deg - p.slew_deg) * rad
  const luff = Math.abs(q.angle_deg - p.angle_deg) * rad
  const draw = Math.abs(q.boom_m - p.boom_m)
  const long = Math.max(p.boom_m, q.boom_m)
  if (name === 'tail') return slew * (b.tail?.radius_m ?? 0)
  const reach = long + Math.abs(b.boom.pivot.back_m)
  return slew * reach + luff * long + draw + (name === 'boom' ? 0 : Math.abs(q.drop_m - p.drop_m))
}
