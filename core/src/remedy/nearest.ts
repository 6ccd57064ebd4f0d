import { assess } from '../assess/assess'
import { checkNamed } from '../check/checks'
import { boomTables, rowRadii } from '../check/choose-table'
import { contextsOf, type LiftContext } from '../check/context'
import { type Finding, isWorse } from '../finding/finding'
import { type Case, nearShareOf } from '../lift/case'
import type { Hung, LiftPlan, SetupPlan } from '../lift/plan'
import type { RemedyKind, RemedyName } from '../lift/remedy'
import { nth } from '../list'
import { liftsOnHook, liftsOnOutriggers } from '../machine/crane'
import { isTruck } from '../machine/provable'
import { poseFor } from '../parts/booms/reach'
import type { SlewStep } from '../parts/stability/slew'
import { counterweightNamed } from '../parts/superstructure'
import { furtherOut, type OutriggerSetting, type OutriggerStop } from '../parts/supports/outriggers'
import { outriggersIn } from '../parts/supports/states'
import type { TowStep } from '../parts/tow'
import { normalDegrees } from '../physics'
import { high, nominal, type Tol } from '../quantity/measured'
import { saysStanding } from '../rating/table'
import { Refusal } from '../refusal'
import { boundary } from '../search'
import type { AvailableResources, Remedy } from './remedy'
import { standingIn } from './support-choice'

/**
 * The smallest single changes that bring a failed finding inside, each proven by a fresh assessment of the changed case.
 * A change that makes any other finding worse is not offered. Changes that bring the whole lift inside come first.
 *
 * Searches are bounded: bisection along one quantity at a time. The failed check is looked at by itself first; only where it passes is
 * the changed case proved whole.
 */
export function nearestRemedies(c: Case, f: Finding, means: AvailableResources): Remedy[] {
  const before = assess(c)
  const look = (changed: Case): readonly LiftContext[] | null => {
    const contexts = contextsOf(changed)
    return resolves(f, whereItFailed(contexts, f)) && resolves(f, byItself(contexts, f)) ? contexts : null
  }
  const quick = !liftsOnHook(c.machine) || c.lift.steps[0]?.do === 'tow'
  const prove: Prove = (change, changedCase, enough = 'inside') => {
    const changed = { ...c, ...changedCase }
    return unlessRefused(() => {
      // A truck's proof, or one under a beam, is so little work that it is done whole at once.
      const contexts = quick ? undefined : look(changed)
      if (contexts === null) return null
      const assessment = assess(changed, { contexts })
      return resolves(f, assessment.findings, enough) && spoilsNothing(before.findings, assessment.findings, f)
        ? { change, changedCase: { setup: changed.setup, lift: changed.lift, conditions: changed.conditions }, assessment }
        : null
    })
  }
  const passes: Passes = (changedCase) =>
    unlessRefused(() => {
      const changed = { ...c, ...changedCase }
      return quick ? resolves(f, assess(changed).findings) || null : look(changed)
    }) !== null
  const offers = checkNamed(f.check).remedies.map((name) => searches[name](c, f, means, prove, passes))
  return offers.filter((o): o is Remedy => o !== null).sort((a, b) => rankOf(b) - rankOf(a))
}

/** What can be taken at once before what only people can do; what brings the whole lift inside first. */
const rankOf = (c: Remedy) => (c.changedCase ? 2 : 0) + Number(c.assessment?.verdict === 'inside')

/**
 * The changed case proved whole; null where it is not put right, or something else is made worse. Of steps that a machine has only some of, one that
 * leaves it near is worth saying.
 */
type Prove = (change: RemedyKind, changedCase: Partial<Case>, enough?: 'inside' | 'near') => Remedy | null
/** The failed check by itself passes in the changed case. */
type Passes = (changedCase: Partial<Case>) => boolean
type Search = (c: Case, f: Finding, means: AvailableResources, prove: Prove, passes: Passes) => Remedy | null

/** A change that the machine has no set-up or step for puts nothing right. */
function unlessRefused<T>(work: () => T): T | null {
  try {
    return work()
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/**
 * The change of one figure that is nearest to what it is: the first of the given figures, from near to far, that holds, then as
 * near as still holds. Looked for by the failed check alone; where what it finds spoils something else, by whole proofs.
 *
 * @param tries figures from near to far
 * @param within how finely it is looked for
 * @param round towards the side that holds
 */
function nearestFigure(
  now: number,
  tries: readonly number[],
  within: number,
  round: (x: number) => number,
  { proved, passed }: { proved: (x: number) => Remedy | null; passed: (x: number) => boolean },
): Remedy | null {
  const by = (holds: (x: number) => boolean): Remedy | null => {
    const start = tries.findIndex(holds)
    const first = tries[start]
    if (first === undefined) return null
    const found = boundary(holds, first, tries[start - 1] ?? now, within)
    return proved(round(found)) ?? proved(first)
  }
  return by(passed) ?? (tries.some(passed) ? by((x) => proved(x) !== null) : null)
}

/** Table and rating are one question: which table, and what it allows. */
const family = (f: Finding) => (f.check === 'table' || (f.check === 'rating' && f.subject === null) ? 'table' : f.id)

/** What the checks of the failed family alone find in a changed case. */
function byItself(contexts: readonly LiftContext[], f: Finding): Finding[] {
  const checks = f.check === 'table' || f.check === 'rating' ? [checkNamed('table'), checkNamed('rating')] : [checkNamed(f.check)]
  return contexts.flatMap((ctx) => checks.flatMap((check) => check.run(ctx)))
}

/** The same, in the slew alone where it failed: a change that does not put that right need not be looked at over the whole way. */
function whereItFailed(contexts: readonly LiftContext[], f: Finding): Finding[] {
  const { at } = f
  if (!at) return []
  const there = contexts.filter((ctx) => ctx.index === (f.where?.step ?? 0)).map((ctx) => ctx.onlyAt(at.slew_deg))
  return byItself(
    there.filter((ctx) => ctx !== null),
    f,
  )
}

function resolves(target: Finding, after: readonly Finding[], enough: 'inside' | 'near' = 'inside'): boolean {
  const passes = (f: Finding) =>
    f.verdict === 'inside' || (enough === 'near' && f.verdict === 'near' && target.verdict !== 'near')
  return after.filter((f) => family(f) === family(target)).every(passes)
}

function spoilsNothing(before: readonly Finding[], after: readonly Finding[], target: Finding): boolean {
  return after.every((f) => {
    // What another way of standing needs is confirmed when the machine is set up so.
    if (family(f) === family(target) || f.check === 'evidence') return true
    const was = before.find((b) => b.id === f.id)
    return was ? !isWorse(f.verdict, was.verdict) : f.verdict === 'inside' || f.verdict === 'near'
  })
}

const byAtMost = (t: Tol, value: number): Tol =>
  typeof t === 'number' ? Math.min(t, value) : { ...t, value: Math.min(t.value, value) }

/** The lift with every step changed that carries the load. */
const everyLadenStep = ({ lift }: Case, change: (s: SlewStep) => SlewStep): LiftPlan => ({
  ...lift,
  steps: lift.steps.map((s) => (s.laden && s.do === 'slew' ? change(s) : s)),
})

/** Only of a lift made by slewing can radius, boom and direction be changed by one figure; a way through poses is another way. */
const onlySlews = ({ lift }: Case) => lift.steps.every((s) => s.do === 'slew')

/** The lift with another load. */
const withLoad = ({ lift }: Case, load: Partial<Hung['load']>): LiftPlan => ({
  ...lift,
  hung: { ...lift.hung, load: { ...lift.hung.load, ...load } },
})

/** The step that a finding is about. */
const stepOf = ({ lift }: Case, f: Finding): { step: SlewStep; changed: (to: Partial<SlewStep>) => LiftPlan } | null => {
  const i = f.where?.step ?? 0
  const step = nth(lift.steps, i)
  return step.do !== 'slew'
    ? null
    : { step, changed: (to) => ({ ...lift, steps: lift.steps.map((s, j) => (j === i ? { ...step, ...to } : s)) }) }
}

/** The set-up with other outriggers. */
const withOutriggers = ({ setup }: Case, change: (o: OutriggerSetting) => OutriggerSetting): SetupPlan =>
  setup.standing.on === 'outriggers'
    ? { ...setup, standing: { ...setup.standing, outriggers: setup.standing.outriggers.map(change) } }
    : setup

const radius: Search = (c, _f, _means, prove, passes) => {
  if (!onlySlews(c)) return null
  const laden = c.lift.steps.flatMap((s) => (s.laden && s.do === 'slew' ? [s] : []))
  const now = Math.max(...laden.flatMap((s) => [nominal(s.pickUp.radius_m), nominal(s.setDown.radius_m)]))
  const at = (radius_m: number) => ({
    lift: everyLadenStep(c, (step) => ({
      ...step,
      pickUp: { ...step.pickUp, radius_m: byAtMost(step.pickUp.radius_m, radius_m) },
      setDown: { ...step.setDown, radius_m: byAtMost(step.setDown.radius_m, radius_m) },
    })),
  })
  // Rows are where the reading changes.
  const stretches = contextsOf(c).map((ctx) => ctx.stretch)
  const [first] = contextsOf(c)
  const made = first
    ? boomTables(
        c.tables,
        first.partsOfLine,
        { counterweight_kg: first.counterweight.mass_kg, contacts: first.contacts },
        c.setup.fitted.attachment,
      )
    : c.tables
  const tables = made.flatMap((table) =>
    table.configurations.filter(saysStanding).map((configuration) => ({ table, configuration })),
  )
  const rows = new Set(
    stretches.flatMap((s) => tables.flatMap((t) => rowRadii(t, s).map((r) => Math.floor(r * 100 + 1e-6) / 100))),
  )
  const nearer = [...rows].filter((r) => r < now && r > 0).sort((a, b) => b - a)
  return nearestFigure(now, nearer, 0.04, (r) => Math.floor(r * 20) / 20, {
    proved: (radius_m) => prove({ kind: 'radius', radius_m, less_m: now - radius_m }, at(radius_m)),
    passed: (radius_m) => passes(at(radius_m)),
  })
}

const mass: Search = (c, _f, _means, prove, passes) => {
  const t = c.lift.hung.load.mass_kg
  if (t === null) return null
  const now = nominal(t)
  const at = (kg: number) => ({ lift: withLoad(c, { mass_kg: typeof t === 'number' ? kg : { ...t, value: kg } }) })
  // A much lighter load catches the wind sooner, so the search goes down from what it is, not up from nothing.
  const tries = [0.97, 0.92, 0.85, 0.75, 0.62, 0.45, 0.28, 0.14, 0.06].map((share) => now * share)
  const step = now > 1000 ? 50 : 5
  return nearestFigure(
    now,
    tries.filter((kg) => kg > high(t) - now),
    Math.max(1, now / 200),
    (kg) => Math.floor(kg / step) * step,
    {
      proved: (mass_kg) => prove({ kind: 'mass', mass_kg, less_kg: now - mass_kg }, at(mass_kg)),
      passed: (mass_kg) => passes(at(mass_kg)),
    },
  )
}

/** The lift with every towing step changed. */
const everyTow = ({ lift }: Case, change: Partial<TowStep>): LiftPlan => ({
  ...lift,
  steps: lift.steps.map((s) => (s.do === 'tow' ? { ...s, ...change } : s)),
})
const towIn = ({ lift }: Case) => lift.steps.find((s) => s.do === 'tow') ?? null

/** The most that may be lifted behind, to ten kilograms. */
const lifted: Search = (c, _f, _means, prove, passes) => {
  const t = towIn(c)?.lifted_kg ?? null
  if (t === null) return null
  const now = nominal(t)
  const at = (kg: number) => ({ lift: everyTow(c, { lifted_kg: typeof t === 'number' ? kg : { ...t, value: kg } }) })
  const tries = [0.97, 0.92, 0.85, 0.75, 0.62, 0.45, 0.28, 0.14].map((share) => now * share)
  return nearestFigure(now, tries, 1, (kg) => Math.floor(kg / 10) * 10, {
    proved: (mass_kg) => prove({ kind: 'lifted', mass_kg, less_kg: now - mass_kg }, at(mass_kg)),
    passed: (mass_kg) => passes(at(mass_kg)),
  })
}

/** The arm drawn in as little as will do, to five centimetres. */
const arm: Search = (c, _f, _means, prove, passes) => {
  const t = towIn(c)?.overhang_m
  const from_m = c.machine.tow?.arm.from_m
  if (t === undefined || from_m === undefined) return null
  const now = nominal(t)
  const at = (m: number) => ({ lift: everyTow(c, { overhang_m: typeof t === 'number' ? m : { ...t, value: m } }) })
  const tries = [0.75, 0.5, 0.25, 0].map((share) => from_m + (now - from_m) * share).filter((m) => m < now)
  return nearestFigure(now, tries, 0.005, (m) => Math.max(from_m, Math.floor(m * 20 + 1e-9) / 20), {
    proved: (out_m) => prove({ kind: 'arm', out_m, less_m: now - out_m }, at(out_m)),
    passed: (out_m) => passes(at(out_m)),
  })
}

/** Several lifts of equal parts, where the load can be taken apart: as few as will do. The sail is taken as the whole load’s. */
const split: Search = (c, _f, _means, prove) => {
  const t = c.lift.hung.load.mass_kg
  // A hull is one piece.
  if (t === null || c.lift.hung.belly) return null
  for (let lifts = 2; lifts <= 4; lifts++) {
    const part = typeof t === 'number' ? t / lifts : { value: t.value / lifts, tolerance: t.tolerance / lifts }
    const done = prove({ kind: 'split', lifts, mass_kg: nominal(part) }, { lift: withLoad(c, { mass_kg: part }) })
    // Only people can take a load apart; then it is another load, and proved as one.
    if (done) return { ...done, changedCase: null }
  }
  return null
}

const turn: Search = (c, f, _means, prove) => {
  const found = stepOf(c, f)
  if (!found) return null
  const { step, changed } = found
  const slewDirection = step.slewDirection === 'clockwise' ? 'anticlockwise' : 'clockwise'
  return prove({ kind: 'slew-direction', slewDirection }, { lift: changed({ slewDirection }) })
}

const setSlew: Search = (c, f, _means, prove) => {
  // Where a step after it goes on from there, another place to set down is another lift.
  if (c.lift.steps.length > 1) return null
  const found = stepOf(c, f)
  if (!found) return null
  const { step, changed } = found
  const now = step.setDown.slew_deg
  const to = (by: number) =>
    prove(
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

const extend: Search = (c, _f, means, prove) => {
  if (!liftsOnOutriggers(c.machine)) return null
  const { outriggers: own } = c.machine
  const settings = outriggersIn(c.setup.standing)
  const further = (l: OutriggerSetting): OutriggerStop[] => {
    const o = own.find((x) => x.id === l.id)
    return o ? furtherOut(o, l.at.stop).filter((e) => means.canStand(l.id, e.id, l.mat?.id ?? null)) : []
  }
  const choices = settings.flatMap((l) => further(l).map((e) => ({ id: l.id, e })))
  const all = settings.flatMap((l) => {
    const widest = further(l).at(-1)
    return widest ? [{ id: l.id, e: widest }] : []
  })
  const widen = (set: readonly { id: string; e: OutriggerStop }[]) => {
    const outriggers = set.map(({ id, e }) => ({
      id,
      label: own.find((o) => o.id === id)?.label ?? id,
      stop: e.id,
      stopLabel: e.label,
    }))
    return prove(
      { kind: 'extension', outriggers },
      { setup: withOutriggers(c, (l) => ({ ...l, at: { stop: set.find((s) => s.id === l.id)?.e.id ?? l.at.stop } })) },
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

const mat: Search = (c, f, means, prove) => {
  const now = outriggersIn(c.setup.standing).find((l) => l.id === f.subject)
  const label = liftsOnOutriggers(c.machine) ? (c.machine.outriggers.find((l) => l.id === f.subject)?.label ?? '') : ''
  const sorted = [...means.mats].sort((a, b) => a.length_m * a.width_m - b.length_m * b.width_m || a.mass_kg - b.mass_kg)
  for (const m of sorted) {
    if (!f.subject || !now || m.id === now.mat?.id || !means.canStand(now.id, now.at.stop, m.id)) continue
    const done = prove(
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

const partsOfLine: Search = (c, _f, _means, prove) => {
  if (!liftsOnHook(c.machine)) return null
  const more = c.machine.hoist.reevings.map((r) => r.parts).filter((n) => n > (c.setup.fitted.partsOfLine ?? 0))
  for (const n of more.sort((a, b) => a - b)) {
    const done = prove(
      { kind: 'parts-of-line', partsOfLine: n },
      { setup: { ...c.setup, fitted: { ...c.setup.fitted, partsOfLine: n } } },
    )
    if (done) return done
  }
  return null
}

const boom: Search = (c, f, _means, prove) => {
  if (!liftsOnHook(c.machine)) return null
  const now = stepOf(c, f)?.step.boom_m
  if (now === undefined || !onlySlews(c)) return null
  const others = c.machine.boom.lengths_m.filter((l) => l !== now)
  for (const boom_m of others.sort((a, b) => Math.abs(a - now) - Math.abs(b - now))) {
    const done = prove({ kind: 'boom', boom_m }, { lift: everyLadenStep(c, (step) => ({ ...step, boom_m })) })
    if (done) return done
  }
  return null
}

const counterweight: Search = (c, _f, _means, prove) => {
  if (!liftsOnHook(c.machine)) return null
  const { name, upper } = c.machine
  const now = counterweightNamed(name, upper, c.setup.fitted.counterweight).mass_kg
  for (const w of upper.counterweights.filter((x) => x.mass_kg > now)) {
    const done = prove(
      { kind: 'counterweight', id: w.id, label: w.label },
      { setup: { ...c.setup, fitted: { ...c.setup.fitted, counterweight: w.id } } },
    )
    if (done) return done
  }
  return null
}

const wind: Search = (c, f, _means, prove) => {
  if (f.limit === null || c.conditions.wind_mps === null) return null
  const wind_mps = Math.floor(f.limit * nearShareOf(c) * 10 - 1e-9) / 10
  return prove({ kind: 'wind', wind_mps }, { conditions: { ...c.conditions, wind_mps } })
}

/** Longer slings, a quarter of a metre at a time, up to twice as long. */
const slings: Search = (c, _f, _means, prove) => {
  const now = c.lift.hung.slings
  if (!now?.length_m) return null
  const value = nominal(now.length_m)
  for (let length_m = Math.floor(4 * value + 1) / 4; length_m <= 2 * value; length_m += 0.25) {
    const t = typeof now.length_m === 'number' ? length_m : { ...now.length_m, value: length_m }
    const lift = { ...c.lift, hung: { ...c.lift.hung, slings: { ...now, length_m: t } } }
    const done = prove({ kind: 'slings', length_m, more_m: length_m - value }, { lift })
    if (done) return done
  }
  return null
}

/** Its feet down, where it has some and they are up. */
function feetDown(c: Case, prove: Prove): Remedy | null {
  const { standing } = c.setup
  if (!isTruck(c.machine) || !c.machine.truck.stabilisers || standing.on !== 'wheels' || standing.state === 'stabilisers')
    return null
  const change = { kind: 'support', state: 'stabilisers', label: 'With the stabilisers down' } as const
  return prove(change, { setup: { ...c.setup, standing: { ...standing, state: 'stabilisers' } } })
}

/** Between every two poses drawn in, raised or lowered short, and drawn out again. */
const retractFirst: Search = (c, _f, _means, prove) => {
  if (!isTruck(c.machine) || !c.machine.truck.reach) return null
  const { reach, faceToAxle_m } = c.machine.truck
  const short = (angle_deg: number) => ({ boom_m: reach.lengths.least_m, angle_deg })
  const steps = c.lift.steps.map((s) => {
    if (s.do !== 'reach') return s
    const poses = s.waypoints.map((w) => poseFor(reach, faceToAxle_m, w))
    return {
      ...s,
      waypoints: poses.flatMap((p, i) => (i === 0 ? [p] : [short(poses[i - 1]?.angle_deg ?? 0), short(p.angle_deg), p])),
    }
  })
  return prove({ kind: 'retract-first' }, { lift: { ...c.lift, steps } })
}

/** The next way of standing that does, with more work; what has to be confirmed in it is asked for when it is set up so. */
const support: Search = (c, _f, means, prove) => {
  if (isTruck(c.machine)) return feetDown(c, prove)
  const states = c.machine.supportStates ?? []
  const now = states.findIndex((s) => s.id === c.setup.standing.state)
  for (const state of states.slice(now + 1)) {
    if (state.on === 'wheels' || state.for !== 'lift') continue
    const setup = standingIn(c, state, means)
    const done = prove({ kind: 'support', state: state.id, label: state.label }, { setup })
    if (done) return done
  }
  return null
}

/** The highest stack that holds, to the decimetre. */
const height: Search = (c, f, _means, prove, passes) => {
  const i = f.where?.step ?? c.lift.steps.findIndex((s) => s.do === 'mast')
  const step = c.lift.steps[i]
  if (step?.do !== 'mast') return null
  const now = Math.max(...step.waypoints.map((p) => p.height_m))
  const at = (height_m: number) => ({
    lift: {
      ...c.lift,
      steps: c.lift.steps.map((s, j) =>
        j === i ? { ...step, waypoints: step.waypoints.map((p) => ({ ...p, height_m: Math.min(p.height_m, height_m) })) } : s,
      ),
    },
  })
  const tries = [0.85, 0.7, 0.5, 0.3, 0.1, 0].map((share) => now * share)
  return nearestFigure(now, tries, 0.02, (h) => Math.floor(h * 10 + 1e-9) / 10, {
    proved: (height_m) => prove({ kind: 'height', height_m }, at(height_m)),
    passed: (height_m) => passes(at(height_m)),
  })
}

/** A load whose centre stands nearer to the face, to five centimetres. */
const loadCentre: Search = (c, _f, _means, prove, passes) => {
  const { cg } = c.lift.hung.load
  if (!cg || !isTruck(c.machine)) return null
  const now = nominal(cg.x_m)
  const at = (x_m: number) => ({ lift: withLoad(c, { cg: { ...cg, x_m: byAtMost(cg.x_m, x_m) } }) })
  const tries = [0.9, 0.8, 0.65, 0.5].map((share) => now * share)
  return nearestFigure(now, tries, 0.01, (x) => Math.floor(x * 20 + 1e-9) / 20, {
    proved: (centre_m) => prove({ kind: 'load-centre', centre_m }, at(centre_m)),
    passed: (centre_m) => passes(at(centre_m)),
  })
}

/** Its centre nearer to the middle, to a centimetre: along, or across. */
const centre: Search = (c, _f, _means, prove, passes) => {
  const { cg } = c.lift.hung.load
  if (!cg || isTruck(c.machine)) return null
  for (const [field, axis] of [
    ['x_m', 'along'],
    ['y_m', 'across'],
  ] as const) {
    const t = cg[field]
    const now = Math.abs(nominal(t))
    const sign = Math.sign(nominal(t))
    const at = (m: number) => ({
      lift: withLoad(c, { cg: { ...cg, [field]: typeof t === 'number' ? sign * m : { ...t, value: sign * m } } }),
    })
    const towards = axis === 'along' ? (sign > 0 ? 'rear' : 'front') : sign > 0 ? 'right' : 'left'
    const tries = [0.85, 0.7, 0.5, 0.3, 0.1, 0].map((share) => now * share).filter((m) => m < now)
    const done = nearestFigure(now, tries, 0.002, (m) => Math.floor(m * 100 + 1e-9) / 100, {
      proved: (m) => prove({ kind: 'centre', axis, by_m: now - m, towards }, at(m)),
      passed: (m) => passes(at(m)),
    })
    if (done) return done
  }
  return null
}

/** Raised no further than the end of a lower stage: the highest that does. */
const stage: Search = (c, _f, _means, prove) => {
  const raised = c.lift.steps.flatMap((s) => (s.do === 'hoist' ? [high(s.from_m), high(s.to_m)] : []))
  const stages = (c.machine.gantry?.stages ?? []).map((s) => s.upTo_m).filter((m) => m < Math.max(...raised))
  for (const height_m of stages.sort((a, b) => b - a)) {
    const steps = c.lift.steps.map((s) =>
      s.do === 'hoist' ? { ...s, from_m: byAtMost(s.from_m, height_m), to_m: byAtMost(s.to_m, height_m) } : s,
    )
    const done = prove({ kind: 'stage', height_m }, { lift: { ...c.lift, steps } }, 'near')
    if (done) return done
  }
  return null
}

/** One point of each header: then statics alone says what each tower carries. */
const linkage: Search = (c, _f, _means, prove) => {
  const { standing } = c.setup
  if (standing.on !== 'towers' || standing.linkage !== 'four-links') return null
  return prove({ kind: 'linkage' }, { setup: { ...c.setup, standing: { ...standing, linkage: 'one-point-per-header' } } })
}

/** Every way driven with the load at the other end. */
const facing: Search = (c, _f, _means, prove) => {
  const first = c.lift.steps.find((s) => s.do === 'drive')
  if (first?.do !== 'drive') return null
  const other = first.facing === 'load-first' ? 'load-last' : 'load-first'
  const steps = c.lift.steps.map((s) => (s.do === 'drive' ? ({ ...s, facing: other } as const) : s))
  return prove({ kind: 'facing', facing: other }, { lift: { ...c.lift, steps } })
}

/** The place where people walk that the load would pass over, closed meanwhile. */
const close: Search = (c, f, _means, prove) => {
  const area = c.place.features.find((x) => x.kind === 'people' && x.id === f.subject)
  if (!area) return null
  const closes = [...(c.lift.closes ?? []), area.id]
  return prove({ kind: 'close', feature: area.id, label: area.label }, { lift: { ...c.lift, closes } })
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
  support,
  height,
  'load-centre': loadCentre,
  facing,
  'retract-first': retractFirst,
  centre,
  stage,
  linkage,
  lifted,
  arm,
  close,
  level,
}
