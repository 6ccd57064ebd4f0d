import { assess } from '../assess/assess'
import type { Assessment } from '../assess/assessment'
import { clearanceCheck } from '../check/clearance'
import { contextsOf } from '../check/context'
import { edgeCheck } from '../check/edge'
import { groundCheck } from '../check/ground'
import { hookHeightCheck } from '../check/hook-height'
import { overheadLineCheck } from '../check/overhead-line'
import { overturningCheck } from '../check/overturning'
import { isWorse } from '../finding/finding'
import type { Case } from '../lift/case'
import { liftsOnHook } from '../machine/crane'
import { isGantry, isRunway, isStraddle, isTruck } from '../machine/provable'
import type { Place } from '../place/place'
import { nominal } from '../quantity/measured'
import { Refusal } from '../refusal'
import { onHookFrom, type Rated } from './on-hook'
import { astride, onForks } from './on-wheels'
import { type Asked, type Effort, type Offered, type Stand, type Unable, type Way, workOf } from './way'
import { betweenTowers, underBeam } from './where-built'

/** One way, proved. */
export interface Proved {
  way: Way
  assessment: Assessment
  /** What is left of the limit that decides, 0 to 1; below nothing: over it. Null: it decides by no share. */
  margin: number | null
  work: number
}

/** What one machine could do with it. */
export interface Answer {
  machine: { id: string; name: string; kind: string }
  /** The best way found; null: it was not tried. */
  best: Proved | null
  /** The best from each other stand, the best first. */
  elsewhere: readonly Proved[]
  /** Why no way was tried. */
  unable: Unable | null
}

/** Ways of one stand that are proved whole, at most. */
const most_ways = 8

/** Every finding stays below its limit by so much at least, as a share of it. */
function marginOf({ governing }: Assessment): number | null {
  return governing && governing.utilisation !== null ? 1 - governing.utilisation : null
}

/** Which of two is the better by verdict; nought: neither. */
export function byVerdict({ assessment: { verdict: x } }: Proved, { assessment: { verdict: y } }: Proved): number {
  return x === y ? 0 : isWorse(x, y) ? 1 : -1
}
const more = (a: Proved, b: Proved) => (b.margin ?? -Infinity) - (a.margin ?? -Infinity) || 0

/** Which of two is the better: by verdict first, then by margin. */
export const byMargin = (a: Proved, b: Proved): number => byVerdict(a, b) || more(a, b) || a.work - b.work

/** The same by verdict first, then by how much work it is. */
export const byWork = (a: Proved, b: Proved): number => byVerdict(a, b) || a.work - b.work || more(a, b)

function prove({ machine, tables }: Offered, { place, policy, conditions }: Asked, way: Way): Proved | Refusal {
  const c: Case = { machine, tables, setup: way.setup, lift: way.lift, conditions, place, policy }
  try {
    const assessment = assess(c)
    return { way, assessment, margin: marginOf(assessment), work: workOf(way.effort) }
  } catch (e) {
    if (e instanceof Refusal) return e
    throw e
  }
}

/** With the places closed that the load passes over, where nothing else keeps it outside. */
function closing(offered: Offered, asked: Asked, proved: Proved): Proved {
  const outside = proved.assessment.findings.filter((f) => f.verdict === 'outside')
  if (outside.length === 0 || outside.some((f) => f.check !== 'people' || f.subject === null)) return proved
  const areas = asked.place.features.filter((f) => f.kind === 'people' && outside.some((o) => o.subject === f.id))
  const effort: Effort[] = areas.map((a) => ({ work: 'close', label: a.label }))
  const { way } = proved
  const closed: Way = {
    ...way,
    lift: { ...way.lift, closes: areas.map((a) => a.id) },
    effort: [...way.effort, ...effort],
  }
  const again = prove(offered, asked, closed)
  return again instanceof Refusal ? proved : again
}

/** The best of the first few ways that are worth proving; the first that is inside is enough. Where all are refused: why. */
function bestOf(offered: Offered, asked: Asked, ways: readonly Way[]): Proved | Unable {
  let best: Proved | null = null
  let refused: Unable = { reason: 'no-stand' }
  for (const way of ways.slice(0, most_ways)) {
    const plain = prove(offered, asked, way)
    if (plain instanceof Refusal) {
      refused = { reason: 'refused', words: plain.message }
      continue
    }
    const proved = closing(offered, asked, plain)
    if (best === null || byMargin(proved, best) < 0) best = proved
    if (best.assessment.verdict === 'inside') break
  }
  return best ?? refused
}

const standsOf = (place: Place): Stand[] =>
  place.positions.map(({ id, label, x_m, y_m, heading_deg, madeFor }) => ({ id, label, x_m, y_m, heading_deg, madeFor }))

/** Of several reasons the one that says the most: what is nearest to being able. */
const telling = (all: readonly Unable[]): Unable =>
  all.find((u) => u.reason === 'out-of-reach') ?? all.find((u) => u.reason !== 'no-stand') ?? all[0] ?? { reason: 'no-stand' }

/** The most that any table of a machine rates anywhere, kg; null: its tables are by hoist or tower, and no figure stands for the whole. */
function mostRated({ machine, tables }: Offered): number | null {
  if (!isTruck(machine) && !liftsOnHook(machine)) return null
  const all = tables
    .filter((t) => t.machine === machine.id)
    .flatMap((t) => t.configurations.flatMap((c) => c.rows.flatMap((r) => r.ratings_kg)))
  return Math.max(0, ...all.map((kg) => (typeof kg === 'number' ? kg : 0)))
}

/**
 * The least work that its table rates, the same turned the other way, and what uses least of its rating; then the others that it rates, with ever
 * less of it used. What no table rates is proved once, to say by how much.
 */
function worthProving(rated: readonly Rated[]): Way[] {
  const [first, second] = rated
  const byUse = [...rated].sort((a, b) => a.use - b.use)
  const all = first && first.use <= 1 ? [first, second, ...byUse.filter((r) => r.use <= 1)] : byUse.slice(0, 1)
  return [...new Set(all.flatMap((r) => (r ? [r.way] : [])))]
}

/** Ways of a machine, stand by stand, or what keeps it from it. */
function waysOf(offered: Offered, asked: Asked, stands: readonly Stand[]): (Way[] | Unable)[] {
  const { machine } = offered
  const most_kg = mostRated(offered)
  const { mass_kg } = asked.wanted.hung.load
  if (most_kg !== null && mass_kg !== null && nominal(mass_kg) > most_kg) return [{ reason: 'too-heavy', most_kg }]
  if (isTruck(machine)) return [onForks({ ...offered, machine }, asked)]
  if (isGantry(machine)) return [betweenTowers({ ...offered, machine }, asked)]
  if (isStraddle(machine)) return [astride({ ...offered, machine }, asked)]
  if (isRunway(machine)) return [underBeam({ ...offered, machine }, asked)]
  if (!liftsOnHook(machine)) return [{ reason: 'not-provable' }]
  return stands.map((at) => {
    const found = onHookFrom({ ...offered, machine }, asked, at)
    return 'reason' in found ? found : worthProving(found)
  })
}

/**
 * What one machine could do with a load at a place: set up in each way that it has, at each of these stands, and proved afresh; the best
 * first. Everything that only people can see to is taken as done, and said in `assumed`; what nobody knows stays *not proven*.
 *
 * @param stands omitted: those that are marked at the place
 */
export function answerOf(offered: Offered, asked: Asked, stands: readonly Stand[] = standsOf(asked.place)): Answer {
  const { id, name, kind } = offered.machine
  const machine = { id, name, kind: kind.label }
  const found = waysOf(offered, asked, stands).map((ways) => ('reason' in ways ? ways : bestOf(offered, asked, ways)))
  const proved = found.filter((f): f is Proved => !('reason' in f)).sort(byMargin)
  const [best = null, ...elsewhere] = proved
  const unable = found.filter((f): f is Unable => 'reason' in f)
  return { machine, best, elsewhere, unable: best ? null : telling(unable) }
}

/**
 * Which machine of a yard could do it: every one of them asked, the best first; none left out, and what stops one said.
 *
 * @example whichMachine(yard, { wanted, place, policy, conditions })[0]?.machine.name // 'Heron'
 */
export function whichMachine(yard: readonly Offered[], asked: Asked): Answer[] {
  return yard
    .map((offered) => answerOf(offered, asked))
    .sort((a, b) => (a.best && b.best ? byMargin(a.best, b.best) : Number(a.best === null) - Number(b.best === null)))
}

/** What is soon looked at and cannot be put right from there. */
const soonest = [edgeCheck, hookHeightCheck, overheadLineCheck, clearanceCheck, overturningCheck, groundCheck]

/** Something keeps it outside that is soon found: not worth a whole proof. */
function hopeless({ machine, tables }: Offered, { place, policy, conditions }: Asked, { setup, lift }: Way): boolean {
  try {
    const contexts = contextsOf({ machine, tables, setup, lift, conditions, place, policy })
    return contexts.some((ctx) => soonest.some((check) => check.run(ctx).some((f) => f.verdict === 'outside')))
  } catch (e) {
    if (e instanceof Refusal) return true
    throw e
  }
}

/** How far apart the stands are that are looked for between marked ones, metres: near where it is wanted, and twice that beyond. */
const grid_m = 2
const near_m = 10
/** Which way the nose points there, degrees from the place's x. */
const headings_deg = [0, 90, 180, 270] as const
/** So many of them are proved, the nearest first, until so many are inside. */
const most = { proved: 30, inside: 8 } as const

/**
 * Where one machine could stand for it, nearest to where it is wanted first: the marked stands, and others on a grid about it.
 *
 * @param near where it is wanted, in the place's metres
 * @param within_m how far from there it is looked for
 */
export function whichPosition(
  offered: Offered,
  asked: Asked,
  near: { x_m: number; y_m: number },
  within_m = 20,
): (Proved & { away_m: number })[] {
  const { machine } = offered
  if (!liftsOnHook(machine)) return []
  const cells = Math.floor(within_m / grid_m)
  const between = [...Array((2 * cells + 1) ** 2).keys()].flatMap((k) => {
    const [i, j] = [(k % (2 * cells + 1)) - cells, Math.floor(k / (2 * cells + 1)) - cells]
    const reach_m = i % 2 === 0 && j % 2 === 0 ? within_m : Math.min(near_m, within_m)
    if (Math.hypot(i, j) * grid_m > reach_m) return []
    const [x_m, y_m] = [near.x_m + i * grid_m, near.y_m + j * grid_m]
    return headings_deg.map((heading_deg): Stand => ({ x_m, y_m, heading_deg, id: null, label: '' }))
  })
  const away = (p: { x_m: number; y_m: number }) => Math.hypot(p.x_m - near.x_m, p.y_m - near.y_m)
  const all = [...standsOf(asked.place), ...between].sort((a, b) => away(a) - away(b))
  const found: (Proved & { away_m: number })[] = []
  let looked = 0
  for (const at of all) {
    if (looked >= most.proved || found.filter((f) => f.assessment.verdict === 'inside').length >= most.inside) break
    const rated = onHookFrom({ ...offered, machine }, asked, at)
    if ('reason' in rated) continue
    const ways = rated.slice(0, 3)
    // What its table does not rate from there is not worth a proof; a marked stand is told of all the same.
    const worth = ways.filter((r) => at.id !== null || (r.use <= 1 && !hopeless(offered, asked, r.way))).map((r) => r.way)
    if (worth.length === 0) continue
    looked++
    const best = bestOf(offered, asked, worth)
    if (!('reason' in best)) found.push({ ...best, away_m: away(at) })
  }
  return found.sort((a, b) => a.away_m - b.away_m)
}
