import { assess } from '../assess/assess'
import { checkNamed } from '../check/checks'
import { contextsOf, type LiftContext } from '../check/context'
import { type Finding, isWorse } from '../finding/finding'
import { type Case, nearShareOf } from '../lift/case'
import type { Hung, LiftPlan, SetupPlan, Step } from '../lift/plan'
import type { RemedyKind, RemedyName } from '../lift/remedy'
import { nth } from '../list'
import { liftsOnOutriggers } from '../machine/crane'
import { counterweightNamed } from '../parts/superstructure'
import { type Extension, type OutriggerSetting, outriggerSupport } from '../parts/supports/outriggers'
import { normalDegrees } from '../physics'
import { high, nominal, type Tol } from '../quantity/measured'
import { rowFigures } from '../rating/table'
import { Refusal } from '../refusal'
import { boundary } from '../search'
import type { AvailableResources, Remedy } from './remedy'

/**
 * The smallest single changes that bring a failed finding inside, each proven by a fresh assessment of the changed case.
 * A change that makes any other finding worse is not offered. Changes that bring the whole lift inside come first.
 *
 * Searches are bounded: bisection along one quantity at a time. The failed check is looked at by itself first; only where it passes is
 * the changed case proved whole.
 */
export function nearestRemedies(c: Case, f: Finding, means: AvailableResources): Remedy[] {
  const before = assess(c)
  const attempt = (change: RemedyKind, changedCase: Partial<Case>): Remedy | null => {
    const changed = { ...c, ...changedCase }
    try {
      const contexts = contextsOf(changed)
      if (!resolves(f, byItself(contexts, f))) return null
      const assessment = assess(changed, { contexts })
      return resolves(f, assessment.findings) && spoilsNothing(before.findings, assessment.findings, f)
        ? { change, changedCase: { setup: changed.setup, lift: changed.lift, conditions: changed.conditions }, assessment }
        : null
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  }
  const offers = checkNamed(f.check).remedies.map((name) => searches[name](c, f, means, attempt))
  return offers.filter((o): o is Remedy => o !== null).sort((a, b) => rankOf(b) - rankOf(a))
}

/** What can be taken at once before what only people can do; what brings the whole lift inside first. */
const rankOf = (c: Remedy) => (c.changedCase ? 2 : 0) + Number(c.assessment?.verdict === 'inside')

type Attempt = (change: RemedyKind, changedCase: Partial<Case>) => Remedy | null
type Search = (c: Case, f: Finding, means: AvailableResources, attempt: Attempt) => Remedy | null

/** Table and rating are one question: which table, and what it allows. */
const family = (f: Finding) => (f.check === 'table' || f.check === 'rating' ? 'table' : f.id)

/** What the checks of the failed family alone find in a changed case. */
function byItself(contexts: readonly LiftContext[], f: Finding): Finding[] {
  const checks = f.check === 'table' || f.check === 'rating' ? [checkNamed('table'), checkNamed('rating')] : [checkNamed(f.check)]
  return contexts.flatMap((ctx) => checks.flatMap((check) => check.run(ctx)))
}

function resolves(target: Finding, after: readonly Finding[]): boolean {
  return after.filter((f) => family(f) === family(target)).every((f) => f.verdict === 'inside')
}

function spoilsNothing(before: readonly Finding[], after: readonly Finding[], target: Finding): boolean {
  return after.every((f) => {
    if (family(f) === family(target)) return true
    const was = before.find((b) => b.id === f.id)
    return was ? !isWorse(f.verdict, was.verdict) : f.verdict === 'inside' || f.verdict === 'near'
  })
}

const byAtMost = (t: Tol, value: number): Tol =>
  typeof t === 'number' ? Math.min(t, value) : { ...t, value: Math.min(t.value, value) }

/** The lift with every step changed that carries the load. */
const everyLadenStep = ({ lift }: Case, change: (s: Step) => Step): LiftPlan => ({
  ...lift,
  steps: lift.steps.map((s) => (s.laden ? change(s) : s)),
})

/** The lift with another load. */
const withLoad = ({ lift }: Case, load: Partial<Hung['load']>): LiftPlan => ({
  ...lift,
  hung: { ...lift.hung, load: { ...lift.hung.load, ...load } },
})

/** The step that a finding is about. */
const stepOf = ({ lift }: Case, f: Finding): { step: Step; changed: (to: Partial<Step>) => LiftPlan } => {
  const i = f.where?.step ?? 0
  const step = nth(lift.steps, i)
  return { step, changed: (to) => ({ ...lift, steps: lift.steps.map((s, j) => (j === i ? { ...step, ...to } : s)) }) }
}

/** The set-up with other outriggers. */
const withOutriggers = ({ setup }: Case, change: (o: OutriggerSetting) => OutriggerSetting): SetupPlan => ({
  ...setup,
  standing: { ...setup.standing, outriggers: setup.standing.outriggers.map(change) },
})

const radius: Search = (c, _f, _means, attempt) => {
  const to = (radius_m: number) => {
    const lift = everyLadenStep(c, (step) => ({
      ...step,
      pickUp: { ...step.pickUp, radius_m: byAtMost(step.pickUp.radius_m, radius_m) },
      setDown: { ...step.setDown, radius_m: byAtMost(step.setDown.radius_m, radius_m) },
    }))
    return attempt({ kind: 'radius', radius_m, less_m: now - radius_m }, { lift })
  }
  const laden = c.lift.steps.filter((s) => s.laden)
  const now = Math.max(...laden.flatMap((s) => [nominal(s.pickUp.radius_m), nominal(s.setDown.radius_m)]))
  const rows = rowFigures(c.tables, 'radius_m')
  const close = Math.min(now, ...rows)
  // Rows are where the reading changes: the furthest row that puts it right, then as far out from it as still holds.
  const steps = rows.filter((r) => r < now && r >= close).reverse()
  const start = steps.find((r) => to(r) !== null)
  if (start === undefined) return null
  const outer = steps[steps.indexOf(start) - 1] ?? now
  const found = boundary((r) => to(r) !== null, start, outer, 0.04)
  return to(Math.floor(found * 20) / 20) ?? to(start)
}

const mass: Search = (c, _f, _means, attempt) => {
  const t = c.lift.hung.load.mass_kg
  if (t === null) return null
  const now = nominal(t)
  const to = (kg: number) =>
    attempt(
      { kind: 'mass', mass_kg: kg, less_kg: now - kg },
      { lift: withLoad(c, { mass_kg: typeof t === 'number' ? kg : { ...t, value: kg } }) },
    )
  // A much lighter load catches the wind sooner, so the search goes down from what it is, not up from nothing.
  const shares = [0.97, 0.92, 0.85, 0.75, 0.62, 0.45, 0.28, 0.14, 0.06]
  const start = shares.find((share) => now * share > high(t) - now && to(now * share) !== null)
  if (start === undefined) return null
  const above = shares[shares.indexOf(start) - 1] ?? 1
  const found = boundary((kg) => to(kg) !== null, now * start, now * above, Math.max(1, now / 200))
  const step = now > 1000 ? 50 : 5
  return to(Math.floor(found / step) * step) ?? to(found)
}

/** Several lifts of equal parts, where the load can be taken apart: as few as will do. The sail is taken as the whole load’s. */
const split: Search = (c, _f, _means, attempt) => {
  const t = c.lift.hung.load.mass_kg
  if (t === null) return null
  for (let lifts = 2; lifts <= 4; lifts++) {
    const part = typeof t === 'number' ? t / lifts : { value: t.value / lifts, tolerance: t.tolerance / lifts }
    const done = attempt({ kind: 'split', lifts, mass_kg: nominal(part) }, { lift: withLoad(c, { mass_kg: part }) })
    // Only people can take a load apart; then it is another load, and proved as one.
    if (done) return { ...done, changedCase: null }
  }
  return null
}

const turn: Search = (c, f, _means, attempt) => {
  const { step, changed } = stepOf(c, f)
  const slewDirection = step.slewDirection === 'clockwise' ? 'anticlockwise' : 'clockwise'
  return attempt({ kind: 'slew-direction', slewDirection }, { lift: changed({ slewDirection }) })
}

const setSlew: Search = (c, f, _means, attempt) => {
  // Where a step after it goes on from there, another place to set down is another lift.
  if (c.lift.steps.length > 1) return null
  const { step, changed } = stepOf(c, f)
  const now = step.setDown.slew_deg
  const to = (by: number) =>
    attempt(
      { kind: 'set-down-slew', slew_deg: normalDegrees(now + by), by_deg: by },
      { lift: changed({ setDown: { ...step.setDown, slew_deg: normalDegrees(now + by) } }) },
    )
  for (let by = 5; by <= 180; by += 5) {
    for (const sign of [1, -1]) {
      if (to(sign * by) === null) continue
      for (let finer = by - 4; finer < by; finer++) {
        const nearer = to(sign * finer)
        if (nearer) return nearer
      }
      return to(sign * by)
    }
  }
  return null
}

const extend: Search = (c, _f, means, attempt) => {
  if (!liftsOnOutriggers(c.machine)) return null
  const support = outriggerSupport(c.machine.outriggers)
  const labels = new Map(support.points.map((l) => [l.id, l.label]))
  const choices = c.setup.standing.outriggers.flatMap((l) =>
    support
      .furtherOut(l.at.stop)
      .filter((e) => means.canStand(l.id, e, l.mat?.id ?? null))
      .map((e) => ({ id: l.id, e })),
  )
  const all = c.setup.standing.outriggers.flatMap((l) => {
    const widest = [...support.furtherOut(l.at.stop)].reverse().find((e) => means.canStand(l.id, e, l.mat?.id ?? null))
    return widest ? [{ id: l.id, e: widest }] : []
  })
  const widen = (set: readonly { id: string; e: Extension }[]) => {
    const outriggers = set.map(({ id, e }) => ({ id, label: labels.get(id) ?? id, extension: e }))
    return attempt(
      { kind: 'extension', outriggers },
      { setup: withOutriggers(c, (l) => ({ ...l, at: { stop: set.find((s) => s.id === l.id)?.e ?? l.at.stop } })) },
    )
  }
  for (const set of [...choices.map((x) => [x]), ...pairs(choices), all]) {
    const done = set.length > 0 ? widen(set) : null
    if (done) return done
  }
  return null
}

/** Every two legs that could both go further out. */
function pairs<T extends { id: string }>(choices: readonly T[]): T[][] {
  return choices.flatMap((a, i) => choices.slice(i + 1).flatMap((b) => (a.id === b.id ? [] : [[a, b]])))
}

const mat: Search = (c, f, means, attempt) => {
  const now = c.setup.standing.outriggers.find((l) => l.id === f.subject)
  const label = liftsOnOutriggers(c.machine) ? (c.machine.outriggers.find((l) => l.id === f.subject)?.label ?? '') : ''
  const sorted = [...means.mats].sort((a, b) => a.length_m * a.width_m - b.length_m * b.width_m || a.mass_kg - b.mass_kg)
  for (const m of sorted) {
    if (!f.subject || !now || m.id === now.mat?.id || !means.canStand(now.id, now.at.stop, m.id)) continue
    const done = attempt(
      { kind: 'mat', outrigger: f.subject, label, mat: m },
      { setup: withOutriggers(c, (l) => (l.id === f.subject ? { ...l, mat: m } : l)) },
    )
    if (done) return done
  }
  return null
}

/** What the site has no piece for can still be named. */
const matSize: Search = (_c, f) => {
  if (f.check !== 'ground' || f.verdict !== 'outside' || !('ground' in f.detail)) return null
  const { side_m, label } = f.detail
  if (side_m === undefined) return null
  return { change: { kind: 'mat-size', outrigger: f.subject ?? '', label, side_m }, changedCase: null, assessment: null }
}

const partsOfLine: Search = (c, _f, _means, attempt) => {
  if (!liftsOnOutriggers(c.machine)) return null
  const more = c.machine.hoist.reevings.map((r) => r.parts).filter((n) => n > (c.setup.fitted.partsOfLine ?? 0))
  for (const n of more.sort((a, b) => a - b)) {
    const done = attempt(
      { kind: 'parts-of-line', partsOfLine: n },
      { setup: { ...c.setup, fitted: { ...c.setup.fitted, partsOfLine: n } } },
    )
    if (done) return done
  }
  return null
}

const boom: Search = (c, f, _means, attempt) => {
  if (!liftsOnOutriggers(c.machine)) return null
  const now = stepOf(c, f).step.boom_m
  const others = c.machine.boom.lengths_m.filter((l) => l !== now)
  for (const boom_m of others.sort((a, b) => Math.abs(a - now) - Math.abs(b - now))) {
    const done = attempt({ kind: 'boom', boom_m }, { lift: everyLadenStep(c, (step) => ({ ...step, boom_m })) })
    if (done) return done
  }
  return null
}

const counterweight: Search = (c, _f, _means, attempt) => {
  if (!liftsOnOutriggers(c.machine)) return null
  const { name, upper } = c.machine
  const now = counterweightNamed(name, upper, c.setup.fitted.counterweight).mass_kg
  for (const w of upper.counterweights.filter((x) => x.mass_kg > now)) {
    const done = attempt(
      { kind: 'counterweight', id: w.id, label: w.label },
      { setup: { ...c.setup, fitted: { ...c.setup.fitted, counterweight: w.id } } },
    )
    if (done) return done
  }
  return null
}

const wind: Search = (c, f, _means, attempt) => {
  if (f.limit === null || c.conditions.wind_mps === null) return null
  const wind_mps = Math.floor(f.limit * nearShareOf(c) * 10 - 1e-9) / 10
  return attempt({ kind: 'wind', wind_mps }, { conditions: { ...c.conditions, wind_mps } })
}

/** Longer slings, a quarter of a metre at a time, up to twice as long. */
const slings: Search = (c, _f, _means, attempt) => {
  const now = c.lift.hung.slings
  if (!now?.length_m) return null
  const value = nominal(now.length_m)
  for (let length_m = Math.floor(4 * value + 1) / 4; length_m <= 2 * value; length_m += 0.25) {
    const t = typeof now.length_m === 'number' ? length_m : { ...now.length_m, value: length_m }
    const lift = { ...c.lift, hung: { ...c.lift.hung, slings: { ...now, length_m: t } } }
    const done = attempt({ kind: 'slings', length_m, more_m: length_m - value }, { lift })
    if (done) return done
  }
  return null
}

const level: Search = () => ({ change: { kind: 'level' }, changedCase: null, assessment: null })

/** How each change is looked for. Which of them can put a check right, and in which order they are offered, the check says. */
const searches: Record<RemedyName, Search> = {
  radius,
  mass,
  split,
  'slew-direction': turn,
  'set-down-slew': setSlew,
  extension: extend,
  mat,
  'mat-size': matSize,
  'parts-of-line': partsOfLine,
  boom,
  counterweight,
  wind,
  slings,
  level,
}
