import { type Case, nearShareOf } from '../lift/case'
import type { Step } from '../lift/plan'
import { nth } from '../list'
import { type GantryMachine, isGantry } from '../machine/provable'
import { type GantryPart, towersOf } from '../parts/gantry'
import type { OnTowers } from '../parts/supports/towers'
import { g_mps2 } from '../physics'
import { endsOf, high, low, nominal } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type At, actsAt, firstOfTwo, upperOfFour, worstPlaces } from '../statics/shared-load'
import { type Hanging, hangingOf } from './hanging'

/** What one tower carries of load and rigging, as shares of it: the most and the least over the doubt, and as it was said. */
export interface TowerShare {
  id: string
  label: string
  most: number
  least: number
  nominal: number
  setting: OnTowers['towers'][number]
}

/** Everything that the checks of one step of a gantry ask for. */
export class GantryContext {
  readonly machine: GantryMachine
  readonly gantry: GantryPart
  readonly standing: OnTowers
  readonly step: Step
  readonly near_share: number
  /** How high its towers stand in this step at most, at the worse end, and as it was said, metres. */
  readonly height: { worst_m: number; nominal_m: number }
  readonly hung: Hanging | null
  /** How far the load was shifted to the left on its headers before this step, and is in it, metres. */
  readonly shifts: readonly number[]
  /** How far the load hangs beside the middle line at most, metres; null: nobody measured where its centre is. */
  readonly sideShift_m: number | null
  /** Null where the centre of the load is not measured. */
  readonly shares: readonly TowerShare[] | null

  /** @throws Refusal `step-not-possible`, `unknown-state`, `missing-tower`, `not-a-polygon`, `out-of-reach`, `cg-outside`, all naming the field */
  constructor(
    readonly plan: Case,
    readonly index: number,
  ) {
    const { machine, setup, lift } = plan
    if (!isGantry(machine)) throw new Refusal('step-not-possible', `${machine.name} is no gantry.`, 'machine')
    const { standing } = setup
    if (standing.on !== 'towers')
      throw new Refusal('unknown-state', `${machine.name} stands on its towers; set it up so.`, 'setup.standing.on')
    this.machine = machine
    this.gantry = machine.gantry
    this.standing = standing
    this.near_share = nearShareOf(plan)
    this.step = nth(lift.steps, index)
    refuseOtherTowers(machine, standing)
    refuseBeyondTrack(this.step, machine, index)
    if (this.step.do === 'hoist' && this.step.which !== 'all')
      throw new Refusal('step-not-possible', 'Its towers are raised all together.', `lift.steps.${index}.which`)
    this.height = heightOf(plan, index)
    const stages = machine.gantry.stages
    const most_m = nth(stages, stages.length - 1).upTo_m
    if (this.height.nominal_m > most_m + 1e-9)
      throw new Refusal('out-of-reach', `Its last stage ends at ${most_m} m; raise it less.`, `lift.steps.${index}.to_m`)
    this.hung = hangingOf(plan, this.step.laden)
    this.shifts = shiftOf(plan, index)
    const { cg } = lift.hung.load
    this.sideShift_m = cg ? sideShiftOf(machine, standing, cg, this.shifts) : null
    this.shares = cg ? sharesOf(machine, standing, cg, this.shifts) : null
  }

  /** Whether statics alone says what each carries: four links share it by their springs as well. */
  get settled(): boolean {
    return this.standing.linkage === 'one-point-per-header'
  }

  /** What a tower's gauge shows for each kilogram on it where this step begins; null: no stage goes so high. */
  get kPa_per_kg(): number | null {
    const { step, height, gantry } = this
    const from_m = step.do === 'hoist' ? nominal(step.from_m) : height.nominal_m
    const stage = gantry.stages.find((s) => from_m <= s.upTo_m + 1e-9)
    return stage ? g_mps2 / stage.piston_m2 / 1000 : null
  }

  /** Header weight on each tower, kg. */
  get header_kg(): number {
    return this.gantry.stand.header_kg / 2
  }

  /** Rise of the front, and of the left side, at their steepest either way, shares; null: not read. */
  get fall(): { along: number; cross: number } | null {
    const { along_pct, cross_pct } = this.standing.fall
    if (along_pct === null || cross_pct === null) return null
    const steepest = (t: typeof along_pct) => Math.max(Math.abs(low(t)), Math.abs(high(t))) / 100
    return { along: steepest(along_pct), cross: steepest(cross_pct) }
  }
}

function refuseOtherTowers({ name, gantry }: GantryMachine, { towers }: OnTowers): void {
  const ids = towersOf(gantry)
  const unknown = towers.findIndex((t, i) => !ids.includes(t.id) || towers.findIndex((x) => x.id === t.id) < i)
  if (unknown >= 0)
    throw new Refusal('unknown-tower', `${name} has ${ids.join(', ')}, each once.`, `setup.standing.towers.${unknown}.id`)
  if (towers.length !== ids.length)
    throw new Refusal('missing-tower', `Say where each of ${ids.join(', ')} stands.`, 'setup.standing.towers')
  const at = placesOf(
    gantry,
    towers.map((t) => ({ id: t.id, x_m: nominal(t.x_m), y_m: nominal(t.y_m) })),
  )
  const [a, b, c, d] = at
  const crossed = upperOfFour({ x_m: (a.x_m + b.x_m + c.x_m + d.x_m) / 4, y_m: (a.y_m + b.y_m + c.y_m + d.y_m) / 4 }, at) === null
  const [ahead, behind] = [(a.x_m + b.x_m) / 2, (c.x_m + d.x_m) / 2]
  if (crossed || ahead - behind < 0.5 || Math.abs(a.y_m - b.y_m) < 0.5 || Math.abs(c.y_m - d.y_m) < 0.5)
    throw new Refusal('not-a-polygon', 'Its four towers enclose nothing; measure them again.', 'setup.standing.towers')
}

type Placed = At & { id: string }

/** In order round: front header, then rear header back again. */
function placesOf({ stand }: GantryPart, towers: readonly Placed[]): [Placed, Placed, Placed, Placed] {
  const at = (id: string): Placed => towers.find((t) => t.id === id) ?? { id, x_m: 0, y_m: 0 }
  const { front, rear } = stand.headers
  return [at(front.left), at(front.right), at(rear.right), at(rear.left)]
}

function refuseBeyondTrack(step: Step, { name, gantry }: GantryMachine, index: number): void {
  if (step.do !== 'traverse' || step.of === 'load') return
  if (step.of !== 'frame')
    throw new Refusal(
      'step-not-possible',
      `${name} has no trolley: the frame travels, or the load is shifted.`,
      `lift.steps.${index}.of`,
    )
  const { track_m } = gantry.stand
  for (const field of ['from_m', 'to_m'] as const)
    if (nominal(step[field]) > track_m + 1e-9 || nominal(step[field]) < -1e-9)
      throw new Refusal('out-of-reach', `${name}’s track is ${track_m} m long.`, `lift.steps.${index}.${field}`)
}

/** The highest that the towers stand in a step: while travelling as high as they were raised before. @throws Refusal `step-not-possible` */
function heightOf({ lift: { steps }, machine }: Case, index: number): GantryContext['height'] {
  const raised = steps.slice(0, index + 1).findLast((s) => s.do === 'hoist')
  if (raised?.do !== 'hoist')
    throw new Refusal(
      'step-not-possible',
      `${machine.name} travels as high as it was raised; begin with raising it.`,
      `lift.steps.${index}.do`,
    )
  const here = steps[index] === raised ? [raised.from_m, raised.to_m] : [raised.to_m]
  return { worst_m: Math.max(...here.map(high)), nominal_m: Math.max(...here.map(nominal)) }
}

/** How far the load was shifted to the left before a step, and is in it, metres. */
function shiftOf({ lift: { steps } }: Case, index: number): number[] {
  let before = 0
  for (const [i, s] of steps.slice(0, index + 1).entries()) {
    if (s.do !== 'traverse' || s.of !== 'load') continue
    const by = [high(s.to_m) - low(s.from_m), low(s.to_m) - high(s.from_m), nominal(s.to_m) - nominal(s.from_m)]
    if (i === index) return [...new Set([before, ...by.map((x) => before + x)])]
    before += by[2] ?? 0
  }
  return [before]
}

/** How far the load hangs from the middle of either header at most, wherever its towers stand inside their doubt. */
function sideShiftOf({ gantry }: GantryMachine, { towers }: OnTowers, cg: Cg, shifts: readonly number[]): number {
  const { front, rear } = gantry.stand.headers
  const at = (id: string) => towers.find((t) => t.id === id)?.y_m ?? 0
  const middles = [front, rear].flatMap((h) => [low, high].map((end) => (end(at(h.left)) + end(at(h.right))) / 2))
  const places = endsOf(cg.y_m).flatMap((y) => shifts.map((s) => y + s))
  return Math.max(...middles.flatMap((m) => places.map((y) => Math.abs(y - m))))
}

type Cg = NonNullable<Case['lift']['hung']['load']['cg']>

/** Every tower at each end of where it may stand. */
function* towerCorners({ towers }: OnTowers): Generator<Placed[]> {
  const each = towers.map((t) => endsOf(t.x_m).flatMap((x_m) => endsOf(t.y_m).map((y_m): Placed => ({ id: t.id, x_m, y_m }))))
  const counts = each.map((e) => e.length)
  const all = counts.reduce((a, b) => a * b, 1)
  for (let k = 0; k < all; k++) {
    let rest = k
    yield each.map((e) => {
      const i = rest % e.length
      rest = Math.floor(rest / e.length)
      return nth(e, i)
    })
  }
}

/** Shares of the four towers for one place of the centre, in order round. */
function sharedBy(four: readonly Placed[], linkage: OnTowers['linkage'], at: At): number[] | null {
  if (linkage === 'four-links') return upperOfFour(at, four)
  const [a, b, c, d] = [nth(four, 0), nth(four, 1), nth(four, 2), nth(four, 3)]
  const front = firstOfTwo(at.x_m, (a.x_m + b.x_m) / 2, (c.x_m + d.x_m) / 2)
  const [left, behind] = [firstOfTwo(at.y_m, a.y_m, b.y_m), firstOfTwo(at.y_m, d.y_m, c.y_m)]
  return [front * left, front * (1 - left), (1 - front) * (1 - behind), (1 - front) * behind]
}

/** @throws Refusal `cg-outside` where the load as it is said hangs beside all of its towers */
function sharesOf({ gantry }: GantryMachine, standing: OnTowers, cg: Cg, shifts: readonly number[]): TowerShare[] {
  const { linkage, fall, towers } = standing
  const order = placesOf(
    gantry,
    towers.map((t) => ({ id: t.id, x_m: nominal(t.x_m), y_m: nominal(t.y_m) })),
  )
  const tilts = (t: typeof fall.along_pct) => (t === null ? [0] : endsOf(t).map((p) => p / 100))
  const said = actsAt({ x_m: nominal(cg.x_m), y_m: nominal(cg.y_m) + nth(shifts, shifts.length - 1), z_m: nominal(cg.z_m) }, 0, 0)
  const plain = sharedBy(order, linkage, said)
  if (plain === null || plain.some((s) => s < 0))
    throw new Refusal('cg-outside', 'The load’s centre hangs outside its towers; measure it again.', 'lift.hung.load.cg')
  const least = sharedBy(order, 'one-point-per-header', said) ?? plain
  const found = order.map((t, i) => ({ most: nth(plain, i), least: nth(least, i), id: t.id, nominal: nth(plain, i) }))
  const look = (four: readonly Placed[], at: At) => {
    const shares = sharedBy(four, linkage, at)
    const hanging = sharedBy(four, 'one-point-per-header', at)
    for (const [i, f] of found.entries()) {
      // Beside all of them: the nearest carries it whole, and more.
      f.most = Math.max(f.most, shares?.[i] ?? 1)
      f.least = Math.min(f.least, hanging?.[i] ?? 0)
    }
  }
  for (const corner of towerCorners(standing)) {
    const four = placesOf(gantry, corner)
    for (const along of tilts(fall.along_pct))
      for (const cross of tilts(fall.cross_pct))
        for (const z_m of endsOf(cg.z_m)) {
          const ends = (axis: 'x_m' | 'y_m') =>
            endsOf(cg[axis]).flatMap((v) => (axis === 'y_m' ? shifts.map((s) => v + s - z_m * cross) : [v - z_m * along]))
          const [xs, ys] = [ends('x_m'), ends('y_m')]
          const box = { x: [Math.min(...xs), Math.max(...xs)], y: [Math.min(...ys), Math.max(...ys)] } as const
          for (const at of worstPlaces(box, four)) look(four, at)
        }
  }
  const label = (id: string) => `Tower ${id}`
  return found.map(({ id, ...f }) => ({
    ...f,
    id,
    label: label(id),
    setting: nth(
      towers,
      towers.findIndex((t) => t.id === id),
    ),
  }))
}
