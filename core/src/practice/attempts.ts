import { g_mps2, rad } from '../physics'
import { tick_s } from '../swing/axis'
import { type Complex, swayLeg } from '../swing/reference'
import type { Drill, Sample } from './drill'
import { type Sway, swayInWind } from './in-wind'
import { type Move, movesOf } from './moves'
import { type Plane, planeOf } from './planes'

/** How a try at catching a swing went. */
export type CatchWord =
  | 'caught-in-one'
  | 'wrong-way'
  | 'early'
  | 'late'
  | 'overcorrected'
  | 'too-little'
  | 'several-moves'
  | 'nearly'

export interface Attempt {
  plane: Plane
  /** Along a boom that luffs: its first move brought the tip in, as raising does; elsewhere there is no easier way: null. */
  inward: boolean | null
  /** The tick its first move began, and the one at which it was over. */
  from: number
  to: number
  word: CatchWord
  caught: boolean
  moves: number
  /** Swing as it began. */
  before_m: number
  /** The first move: after the right moment by so much (early negative), as a share of what was wanted, and what share of the swing it left. */
  late_s: number
  gain: number
  left: number
}

/** Mistakes beside a catch: a start too fast for the rope, a swing chased to and fro, two hoists that do not keep their load level. */
export interface Fault {
  word: 'too-fast' | 'chased' | 'unlevel'
  plane: Plane
  tick: number
  /** The swing that it left; how far it was out of level. */
  left_m: number
}

const [begin_m, still_m] = [0.2, 0.1]

/** A move that takes less of a swing than this has moved nothing: its direction is rounding. */
const nothing = 1e-6

/** One move against one swing, both turned into phasors of the same beginning: gain 1 and angle 0 leave nothing. */
export function judgeCatch(before: Complex, taken: Complex, w: number) {
  const [a, b] = [before, taken]
  const gain = Math.hypot(...b) / Math.hypot(...a)
  // arg(−I/Z)
  const angle = gain < nothing ? 0 : Math.atan2(-(b[1] * a[0] - b[0] * a[1]), -(b[0] * a[0] + b[1] * a[1]))
  const left = Math.hypot(1 - gain * Math.cos(angle), gain * Math.sin(angle))
  return { gain, angle_deg: angle / rad, late_s: angle / w, left }
}

/** The word for a try, by the first rule that applies. */
export function wordOf(
  j: { gain: number; angle_deg: number },
  caught: boolean,
  moves: number,
  followed: boolean,
  left: number,
): CatchWord {
  if (Math.abs(j.angle_deg) > 90) return 'wrong-way'
  if (Math.abs(j.angle_deg) > 15) return j.angle_deg > 0 ? 'late' : 'early'
  if (j.gain > 1.25) return 'overcorrected'
  if (j.gain < 0.75) return 'too-little'
  if (caught && moves > (followed ? 2 : 1)) return 'several-moves'
  return caught && left <= 0.25 ? 'caught-in-one' : 'nearly'
}

/** What is read of a run in one plane. */
interface Seen {
  plane: Plane
  i: 0 | 1
  samples: readonly Sample[]
  /** What the wind alone makes of it, taken off: that is nobody’s swing. */
  inWind: readonly Sway[] | null
  moves: readonly Move[]
  /** Its moves raise and lower the boom. */
  luffs: boolean
}

const omega = (s: Sample) => Math.sqrt(g_mps2 / s.rope_m)
/** s + i·ṡ/ω */
const swingOf = ({ samples, inWind, i }: Seen, tick: number): Complex => {
  const at = Math.max(0, Math.min(samples.length - 1, tick))
  const [s, off] = [samples[at], inWind?.[at]]
  return s ? [s.beside_m[i] - (off?.beside_m[i] ?? 0), (s.beside_mps[i] - (off?.beside_mps[i] ?? 0)) / omega(s)] : [0, 0]
}
const amplitude = (x: Seen, tick: number) => Math.hypot(...swingOf(x, tick))

/** −∫V·e^{iωt}dt of the tip in a plane between two ticks, time counted from the first. */
function takenBetween({ samples, i }: Seen, from: number, to: number, w: number): Complex {
  let [re, im] = [0, 0]
  for (let k = from; k < to; k++) {
    const [v0, v1] = [samples[k - 1]?.tip_mps[i] ?? 0, samples[k]?.tip_mps[i] ?? 0]
    const at = (k - from) * tick_s
    const [x, y] = swayLeg(v0, (v1 - v0) / tick_s, at, at + tick_s, w)
    re -= x
    im -= y
  }
  return [re, im]
}

/** The tick at which the motion of a move has come to rest again, or its lever has been moved anew. */
function restOf(x: Seen, m: Move, next: Move | undefined): number {
  for (let k = m.to; k < x.samples.length; k++) {
    if (Math.abs(x.samples[k]?.speeds[m.axis] ?? 0) < 1e-9) return k + 1
    if (next && next.axis === m.axis && next.way === m.way && k > next.from) return k
  }
  return x.samples.length
}

/** How far the tip goes in its plane between two ticks, metres. */
const travelOf = ({ samples, i }: Seen, from: number, to: number): number =>
  samples.slice(from, to).reduce((sum, s) => sum + s.tip_mps[i] * tick_s, 0)

/** When a try is over: still for half a period, two periods without a move, or set down. */
function endOf(x: Seen, from: number, moves: readonly Move[], half_ticks: number): { to: number; caught: boolean } {
  const calm_m = Math.max(still_m, 0.25 * amplitude(x, from - 1))
  let calm = 0
  let [lastMove, next] = [from, 0]
  for (let k = from; k < x.samples.length; k++) {
    if (x.samples[k]?.standing) return { to: k, caught: false }
    for (let m = moves[next]; m && m.from <= k; m = moves[++next]) lastMove = Math.max(lastMove, m.to - 1)
    calm = amplitude(x, k) <= calm_m ? calm + 1 : 0
    if (calm >= half_ticks) return { to: k - half_ticks, caught: true }
    if (k - lastMove > 4 * half_ticks) return { to: k, caught: false }
  }
  return { to: x.samples.length, caught: false }
}

function attemptAt(x: Seen, at: number): Attempt | null {
  const m = x.moves[at]
  const s = m && x.samples[m.from]
  if (!m || !s || s.standing || amplitude(x, m.from - 1) < begin_m) return null
  const w = omega(s)
  const half_ticks = Math.round(Math.PI / w / tick_s)
  const { to, caught } = endOf(x, m.from, x.moves.slice(at), half_ticks)
  const within = x.moves.filter((n) => n.from >= m.from && n.from <= to)
  const next = within[1]
  const before = swingOf(x, m.from - 1)
  const first = takenBetween(x, m.from, restOf(x, m, next), w)
  const judged = judgeCatch(before, first, w)
  const followed = next !== undefined && next.way !== m.way && next.from - m.to < half_ticks
  const whole = followed ? judgeCatch(before, takenBetween(x, m.from, restOf(x, next, within[2]), w), w) : judged
  const word = wordOf(judged, caught, within.length, followed, whole.left)
  const { gain, late_s } = judged
  return {
    plane: x.plane,
    inward: x.luffs ? travelOf(x, m.from, restOf(x, m, next)) < 0 : null,
    from: m.from,
    to,
    word,
    caught,
    moves: within.length,
    before_m: Math.hypot(...before),
    late_s,
    gain,
    left: whole.left,
  }
}

/** A start from a still load whose speeding up alone leaves more swing than is allowed. */
function tooFast(x: Seen, allowed_m: number): Fault[] {
  return x.moves.flatMap((m, i): Fault[] => {
    // A start is over once another move begins.
    const end = x.moves[i + 1]?.from ?? x.samples.length
    const s = x.samples[m.from]
    if (!s || s.standing || amplitude(x, m.from - 1) > still_m) return []
    const w = omega(s)
    let [re, im] = [0, 0]
    let moving = false
    for (let k = m.from; k < end; k++) {
      const change = (x.samples[k]?.tip_mps[x.i] ?? 0) - (x.samples[k - 1]?.tip_mps[x.i] ?? 0)
      if (moving && Math.abs(change) < 1e-6) break
      moving ||= Math.abs(change) >= 1e-6
      const phase = (k - m.from + 0.5) * tick_s * w
      re += (change * Math.cos(phase)) / w
      im += (change * Math.sin(phase)) / w
      if (k > m.to && !moving) break
    }
    const left_m = Math.hypot(re, im)
    return left_m > allowed_m ? [{ word: 'too-fast', plane: x.plane, tick: m.from, left_m }] : []
  })
}

/** Three moves and more to and fro in time with the swing, which does not get less. */
function chased(x: Seen): Fault[] {
  const found: Fault[] = []
  let run: Move[] = []
  const close = () => {
    const [first, last] = [run[0], run.at(-1)]
    if (run.length >= 3 && first && last && amplitude(x, last.to) >= amplitude(x, first.from - 1) - 1e-9)
      found.push({ word: 'chased', plane: x.plane, tick: first.from, left_m: amplitude(x, last.to) })
    run = []
  }
  for (const m of x.moves) {
    const last = run.at(-1)
    const s = x.samples[m.from]
    const half = s ? Math.PI / omega(s) / tick_s : 0
    const spacing = last ? m.from - last.from : 0
    if (last && (m.way === last.way || Math.abs(spacing - half) > half / 4)) close()
    if (s && !s.standing) run.push(m)
  }
  close()
  return found
}

/** Each time that a load on two hoists hung further out of level than it may, from its worst moment. */
function unlevel({ rig, samples }: Pick<Drill, 'rig' | 'samples'>): Fault[] {
  const { level } = rig
  if (!level) return []
  const found: Fault[] = []
  let out = false
  for (const [tick, s] of samples.entries()) {
    const left_m = Math.abs(s.apart_m)
    const worst = found.at(-1)
    const now = !s.standing && left_m > level.limit_m
    if (now && !out) found.push({ word: 'unlevel', plane: 'along', tick, left_m })
    else if (now && worst && left_m > worst.left_m) Object.assign(worst, { tick, left_m })
    out = now
  }
  return found
}

/** Every try at a swing and every mistake beside, in the order they happened. */
export function attemptsOf(d: Pick<Drill, 'rig' | 'samples' | 'course'>): { attempts: Attempt[]; faults: Fault[] } {
  const all = movesOf(d)
  const inWind = swayInWind(d)
  const attempts: Attempt[] = []
  const faults: Fault[] = unlevel(d)
  for (const [i, plane] of (['along', 'across'] as const).entries()) {
    const moves = all.filter((m) => planeOf[d.rig.axes[m.axis]?.motion ?? 'hoist'] === plane)
    const x: Seen = {
      plane,
      i: i as 0 | 1,
      samples: d.samples,
      inWind,
      moves,
      luffs: plane === 'along' && d.rig.reach.motion === 'luff',
    }
    let until = -1
    for (const [at, m] of moves.entries()) {
      if (m.from < until) continue
      const a = attemptAt(x, at)
      if (!a) continue
      attempts.push(a)
      until = a.to
    }
    faults.push(...tooFast(x, d.course.allowed_m), ...chased(x))
  }
  return {
    attempts: attempts.sort((a, b) => a.from - b.from),
    faults: faults.sort((a, b) => a.tick - b.tick),
  }
}
