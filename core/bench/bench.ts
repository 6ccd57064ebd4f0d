/** Prints how long the core takes, and ratios within this one run: absolute times on shared machines mean little. */
import { readFileSync } from 'node:fs'
import { Session } from 'node:inspector/promises'
import { DistanceJoint, World } from 'planck'
// quadprog ships no types; its one function is declared beside the tests.
import quadprog from 'quadprog'
import {
  assess,
  type Case,
  canDrive,
  canPractise,
  capacityMap,
  checkProcedures,
  courseFor,
  Drill,
  drivenTruck,
  driveOf,
  driveOn,
  elasticReactions,
  energyError_J,
  firstWorld,
  keptLoad,
  LoadMotion,
  letGo,
  mapOfCase,
  nearestRemedies,
  nearShareOf,
  Pendulum,
  permitted,
  placeDefinition,
  prepareFootprint,
  prepareMap,
  ratingTable,
  rigOf,
  stepsOfFile,
  stillMotion,
  TruckMotion,
  tick_s,
  ticks_per_s,
  whichMachine,
  whichPosition,
  workingAreaZones,
  zonesBetween,
} from '../src'
import { demoMachine, demoMachines, demoPlace, demoTable, tern, ternLift, ternSetup } from '../test/demo'
import { caseOf as caseOfCrane, works } from '../test/jobs'
import { caseOf as caseOfTruck, works as truckWorks } from '../test/truck-jobs'

const read = (p: string) => JSON.parse(readFileSync(new URL(`../../demo/${p}`, import.meta.url), 'utf8'))
const table = ratingTable.parse(read('tables/tern-main.json'))
const place = placeDefinition.parse(read('places/north-quay.json'))

/** Mean of the runs after a fifth of them to warm up; of three rounds the fastest, since others share this machine. */
function time(label: string, runs: number, work: () => void): number {
  for (let i = 0; i < Math.ceil(runs / 5); i++) work()
  let best_ms = Infinity
  for (let round = 0; round < 3; round++) {
    const from = performance.now()
    for (let i = 0; i < runs; i++) work()
    best_ms = Math.min(best_ms, (performance.now() - from) / runs)
  }
  console.log(`${label.padEnd(58)} ${best_ms.toFixed(3)} ms`)
  return best_ms
}
const verdicts: string[] = []
const wanted = (what: string, ok: boolean, figure: string) => verdicts.push(`${ok ? 'met    ' : 'NOT MET'}  ${what}: ${figure}`)

// What a tick of practice makes: nothing, not so much as a number that the engine keeps apart, which takes sixteen bytes. Before all else here: what an
// engine has learnt by other work, it goes by in this.
const inspector = new Session()
inspector.connect()
interface Made {
  selfSize: number
  children: Made[]
}
const sampled = 20_000
/** Bytes a tick, once it has run for a while. @param begun ready to be driven, each time from its beginning */
async function madeInTick(begun: () => (k: number) => void): Promise<number> {
  const run = (tick: (k: number) => void) => {
    for (let k = 0; k < sampled; k++) tick(k)
  }
  for (let i = 0; i < 6; i++) run(begun())
  const tick = begun()
  await inspector.post('HeapProfiler.startSampling', {
    samplingInterval: 256,
    includeObjectsCollectedByMajorGC: true,
    includeObjectsCollectedByMinorGC: true,
  })
  run(tick)
  const { profile } = await inspector.post('HeapProfiler.stopSampling')
  const all = (m: Made): number => m.children.reduce((sum, c) => sum + all(c), m.selfSize)
  return all(profile.head) / sampled
}
await inspector.post('HeapProfiler.enable')
// What the sampling itself takes, once.
await madeInTick(() => () => undefined)
const driven = demoMachines.map((id) => demoMachine(id))
for (const m of driven.filter(canPractise)) {
  const its = rigOf(m)
  const levers = its.axes.map(() => 0.05)
  const begun = () => new LoadMotion(its, { ...courseFor(its, 1, 1), swings: [] })
  const hangs = await madeInTick(() => {
    const motion = begun()
    return (k) => {
      levers[0] = 0.2 * Math.sin(k / 200)
      motion.tick(levers, false)
    }
  })
  const lowered = its.axes.map((a) => (a.motion === 'hoist' || a.motion === 'rear' ? -0.5 : 0))
  const stands = await madeInTick(() => {
    const motion = begun()
    return () => motion.tick(lowered, false)
  })
  wanted(
    `a tick of a load on ${m.id} makes nothing`,
    Math.max(hangs, stands) < 5,
    `${hangs.toFixed(1)}, stands ${stands.toFixed(1)} bytes`,
  )
}
for (const m of driven.filter(canDrive)) {
  const truck = drivenTruck(m, false)
  const says = { travel: 0.3, steer: 0, forks: 0, tilt: 0, shift: 0 }
  const on = { slope: { grade_rad: 0.05, towards_rad: 0 }, friction: 0.6 }
  const bytes = await madeInTick(() => {
    const motion = new TruckMotion(truck, { x_m: 0, y_m: 0, heading_rad: 0 })
    return (k) => {
      says.steer = 0.2 * Math.sin(k / 200)
      says.forks = 0.3 * Math.sin(k / 100)
      motion.tick(says, on)
    }
  })
  wanted(`a tick of ${m.id} under its driver makes nothing`, bytes < 5, `${bytes.toFixed(1)} bytes`)
}
await inspector.post('HeapProfiler.disable')
inspector.disconnect()

// Reactions on springs that cannot pull, against a general quadratic-programming package.
let seed = 7
const random = () => {
  seed = (seed * 16807) % 2147483647
  return seed / 2147483647
}
const cases = Array.from({ length: 10_000 }, () => {
  const n = 4 + Math.floor(random() * 3)
  const supports = Array.from({ length: n }, (_, i) => {
    const a = ((i + 0.2 + 0.6 * random()) / n) * 2 * Math.PI
    const r = 2 + 3 * random()
    return { id: `${i}`, x_m: r * Math.cos(a), y_m: r * Math.sin(a), stiffness_N_per_m: 1e6 * (0.5 + 2 * random()) }
  })
  const f = prepareFootprint(supports)
  const w = f.hull.map(() => 0.02 + random())
  const sum = w.reduce((a, b) => a + b, 0)
  const x = f.hull.reduce((s, p, i) => s + (p.x_m * (w[i] as number)) / sum, 0)
  const y = f.hull.reduce((s, p, i) => s + (p.y_m * (w[i] as number)) / sum, 0)
  return { f, x, y }
})
const force_N = 3e5
const out = new Float64Array(6)
const general = ({ f, x, y }: (typeof cases)[number]): number[] => {
  const n = f.supports.length
  const D = [
    [],
    ...f.supports.map((s, i) => [0, ...f.supports.map((_, j) => (i === j ? 1e6 / (s.stiffness_N_per_m ?? 1e6) : 0))]),
  ]
  const A = [[], ...f.supports.map((s, i) => [0, 1, s.x_m, s.y_m, ...f.supports.map((_, j) => (i === j ? 1 : 0))])]
  const b = [0, 1, x, y, ...f.supports.map(() => 0)]
  const r = quadprog.solveQP(D, new Array(n + 1).fill(0), A, b, 3)
  return r.solution.slice(1)
}
// A machine's footprint is solved again and again as the boom goes round, so each case is solved several times in a row, by both.
const again = 20
const ours_ms =
  time(`ten thousand reactions ${again} times each, ours`, 3, () => {
    for (const c of cases) for (let k = 0; k < again; k++) elasticReactions(c.f, c.x, c.y, force_N, out)
  }) / again
const theirs_ms =
  time('ten thousand reactions twice each, general quadratic programming', 1, () => {
    for (const c of cases) for (let k = 0; k < 2; k++) general(c)
  }) / 2
let apart = 0
for (const c of cases) {
  elasticReactions(c.f, c.x, c.y, force_N, out)
  general(c).forEach((share, i) => {
    apart = Math.max(apart, Math.abs(share - (out[i] as number) / force_N))
  })
}
wanted(
  'reactions at least 100 times a general solver',
  theirs_ms / ours_ms >= 100,
  `${(theirs_ms / ours_ms).toFixed(0)} times, answers apart by ${apart.toExponential(1)} of the weight`,
)
wanted('and equal to 1e-6', apart < 1e-6, apart.toExponential(1))

// The map.
const setup = ternSetup({ left: 'intermediate' })
const c: Case = {
  machine: tern,
  tables: [table],
  setup,
  lift: ternLift(),
  conditions: { wind_mps: 4 },
  place,
  policy: place.policy,
}
const size = { length_m: 2.4, width_m: 1.5, height_m: 1.7 }
const sized = ternLift()
/** The same with the load's size: what stands round it is then judged too. */
const quayside: Case = { ...c, lift: { ...sized, hung: { ...sized.hung, load: { ...sized.hung.load, size } } } }
const cells = (slews: number, radii: number, of = c) => {
  const input = mapOfCase(
    of,
    Array.from({ length: radii }, (_, i) => 3 + (i * 22) / radii),
    Array.from({ length: slews }, (_, i) => (i * 360) / slews),
  )
  if (!input) throw new Error('no map')
  return input
}
const whole = cells(360, 100)
const map_ms = time('map of 360 × 100 cells, four legs', 10, () => void capacityMap(whole))
const beside = cells(360, 100, quayside)
const _beside_ms = time('the same beside the wall, with clearance', 10, () => void capacityMap(beside))
const half_ms = time('map of 180 × 100 cells', 10, () => void capacityMap(cells(180, 100)))
const quarter_ms = time('map of 90 × 100 cells', 10, () => void capacityMap(cells(90, 100)))
const made = capacityMap(whole)
const bytes = [...made.layers.map((l) => l.use), made.governs].reduce((s, a) => s + a.byteLength, 0)
wanted('map without clearance under 60 ms', map_ms < 60, `${map_ms.toFixed(1)} ms`)
const near_share = nearShareOf(quayside)
const area_ms = time(
  'the working area beside the wall, with all checks, as it is drawn',
  10,
  () => void zonesBetween(workingAreaZones(prepareMap(beside), near_share)),
)
wanted('working area with all checks under 60 ms', area_ms < 60, `${area_ms.toFixed(1)} ms`)
wanted('its memory under 8 MB, all layers', bytes < 8 * 2 ** 20, `${(bytes / 2 ** 20).toFixed(2)} MB`)
wanted(
  'cost linear with cells (2 and 4 times)',
  map_ms / half_ms < 2.6 && map_ms / quarter_ms < 5.2,
  `${(map_ms / half_ms).toFixed(2)} and ${(map_ms / quarter_ms).toFixed(2)} times`,
)

// One assessment and one backward answer.
const long = ternLift({ pickUp: { radius_m: 5, slew_deg: 10 }, setDown: { radius_m: 14, slew_deg: 200 } })
const planOf = (lift: typeof long) => ({
  machine: tern,
  tables: [table],
  setup,
  lift,
  conditions: { wind_mps: 4 },
  place,
  policy: place.policy,
})
const prove = (lift: typeof long) => assess(planOf(lift))
const short_ms = time('assess, 50° of slew, two radii', 1000, () => void prove(ternLift()))
const long_ms = time('assess, 190° of slew, path looked at in 200 points', 200, () => void assess(planOf(long), { points: 200 }))
const quay_ms = time('assess beside the wall, with clearance', 300, () => void assess(quayside))
wanted('assess with clearance under 8 ms', quay_ms < 8, `${quay_ms.toFixed(2)} ms`)
wanted('assess under 1 ms', short_ms < 1, `${short_ms.toFixed(2)} ms`)
wanted('assess with a path of 200 points under 2 ms', long_ms < 2, `${long_ms.toFixed(2)} ms`)
const outside = ternLift({
  load: { name: '', mass_kg: 9000, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2 },
  setDown: { radius_m: 13, slew_deg: 300 },
})
const sizedOutside = { ...outside, hung: { ...outside.hung, load: { ...outside.hung.load, size } } }
for (const [what, lift, least_ms] of [
  ['', outside, 20],
  [', with clearance', sizedOutside, 60],
] as const) {
  const failed = prove(lift).findings.find((f) => f.id === 'ground:FR')
  if (!failed) throw new Error('nothing failed')
  const means = { mats: place.mats, canStand: () => true }
  const mend_ms = time(`nearest changes for “${failed.id}”${what}`, 60, () => void nearestRemedies({ ...c, lift }, failed, means))
  wanted(`nearest changes for one finding${what} under ${least_ms} ms`, mend_ms < least_ms, `${mend_ms.toFixed(1)} ms`)
}

// Every machine that is proved, at its slowest job.
const jobs = [
  ...works.flatMap((w) => w.jobs.map((j) => ({ machine: w.machine, c: caseOfCrane(w, j) }))),
  ...truckWorks.flatMap((w) => w.jobs.map((j) => ({ machine: w.machine, c: caseOfTruck(w, j) }))),
]
for (const machine of new Set(jobs.map((j) => j.machine))) {
  const own = jobs.filter((j) => j.machine === machine)
  const slowest_ms = Math.max(...own.map((j) => time(`assess ${machine}`, 30, () => void assess(j.c))))
  wanted(`assess ${machine} under 8 ms`, slowest_ms < 8, `${slowest_ms.toFixed(2)} ms, ${own.length} jobs`)
}

// A whole yard asked for one lift, and one machine for another stand.
const yard = demoMachines.map((id) => {
  const machine = demoMachine(id)
  return { machine, tables: machine.tables.map(demoTable) }
})
const loft = demoPlace('net-loft-yard')
const asked = {
  wanted: {
    format: 'geolabe.wanted/1' as const,
    hung: {
      load: {
        name: 'bale',
        mass_kg: 1900,
        massSource: 'marked' as const,
        windArea_m2: 1.6,
        dragCoefficient: 1.2,
        size: { length_m: 1.2, width_m: 1, height_m: 1.1 },
        cg: { x_m: 0.6, y_m: 0, z_m: 0.55 },
      },
      rigging: [],
      rigging_height_m: 1,
    },
    from: { x_m: 16, y_m: 6, height_m: 0 },
    to: { x_m: 30, y_m: 6, height_m: 3 },
    over_m: 0.5,
  },
  place: loft,
  policy: loft.policy,
  conditions: { wind_mps: 3 },
}
const yard_ms = time(`the whole yard of ${yard.length} asked for one lift`, 3, () => void whichMachine(yard, asked))
wanted(
  'the whole yard under 2 s',
  yard_ms < 2000,
  `${yard_ms.toFixed(0)} ms, ${(yard_ms / quay_ms).toFixed(0)} proofs beside a wall`,
)
const one = yard.find((o) => o.machine.id === 'tern')
if (!one) throw new Error('no Tern')
const stand_ms = time('another stand for one crane', 3, () => void whichPosition(one, asked, { x_m: 25, y_m: 3 }))
wanted('another stand under 2 s', stand_ms < 2000, `${stand_ms.toFixed(0)} ms`)

// The order of work: what of a whole file may be done now, and every file looked through.
const orders = demoMachines.map((id) => ({ id, file: demoMachine(id).procedures }))
const judged = orders.map(({ id, file }) => {
  const [world, steps] = [firstWorld(file), stepsOfFile(file)]
  const judging = { now_ms: 0, computed: () => null }
  return time(`every step of ${id} judged`, 200, () => {
    for (const s of steps) permitted(file, world, s.id, judging)
  })
})
const longest_ms = Math.max(...judged)
wanted('every step of a file judged under 1 ms', longest_ms < 1, `${longest_ms.toFixed(2)} ms`)
const from_ms = performance.now()
for (const { file } of orders) checkProcedures(file)
const found_ms = performance.now() - from_ms
wanted('all of them looked through under 120 s', found_ms < 120_000, `${(found_ms / 1000).toFixed(0)} s, ${orders.length} files`)

// A load let go on its rope, ten minutes long, beside a general physics engine's on a rod of the same length.
const tenMinutes = 600 * ticks_per_s
const rope_m = 12
const still = driveOf(stillMotion({ slew_deg: 0, radius_m: 10, height_m: 20, rope_m }))
const hung = { mass_kg: 1000, cA_m2: 0, loss_per_s: 0 }
const swung_J = hung.mass_kg * 9.80665 * rope_m * (1 - Math.cos((10 * Math.PI) / 180))
let drift = 0
const own_ms = time('a load let go, ten minutes', 1, () => {
  const from = letGo(10, 0)
  const at = keptLoad(from)
  const pendulum = new Pendulum({ hung, driveAt: () => still, wind: () => [0, 0, 0] })
  for (let k = 0; k < tenMinutes; k++) pendulum.step(at, tick_s)
  drift = Math.abs(energyError_J({ s: from, d: still }, { s: at, d: still }, hung.mass_kg)) / swung_J
})
let drift_general = 0
const general_ms = time('the same by a general engine', 1, () => {
  const world = new World({ gravity: { x: 0, y: -9.80665 } })
  const [x, y] = [rope_m * Math.sin((10 * Math.PI) / 180), -rope_m * Math.cos((10 * Math.PI) / 180)]
  const load = world.createBody({ type: 'dynamic', position: { x, y }, linearDamping: 0, angularDamping: 0 })
  load.setMassData({ mass: hung.mass_kg, center: { x: 0, y: 0 }, I: 1 })
  const hook = { x: 0, y: 0 }
  world.createJoint(new DistanceJoint({ length: rope_m }, world.createBody(), load, hook, load.getPosition()))
  const energy = () => {
    const v = load.getLinearVelocity()
    return hung.mass_kg * (0.5 * (v.x ** 2 + v.y ** 2) + 9.80665 * load.getPosition().y)
  }
  const from = energy()
  for (let k = 0; k < tenMinutes; k++) world.step(tick_s, 8, 3)
  drift_general = Math.abs(energy() - from) / swung_J
})
console.log(
  `energy that comes or goes, of the swing’s: ${drift.toExponential(1)} and ${drift_general.toExponential(1)}; ${(own_ms / general_ms).toFixed(2)} of its time`,
)
wanted('a swing keeps its energy better than a general engine', drift < drift_general, `${drift.toExponential(1)} of it`)

// Practice as it is played, every motion driven, in gusts, between posts and a wall: how much faster than it happens.
const rig = rigOf(tern)
const seconds = 60
const played_ms = time(`practice, ${seconds} s of it`, 1, () => {
  const drill = new Drill(rig, { ...courseFor(rig, 1, 1), swings: [] })
  for (let k = 0; k < seconds * ticks_per_s && !drill.over; k++)
    drill.step(
      rig.axes.map((a, i) => (a.motion === 'hoist' ? 0.05 : 0.2) * Math.sin((2 * Math.PI * k) / (ticks_per_s * (7 + i)))),
    )
  if (drill.over) throw new Error('It ended by itself.')
})
wanted(
  'practice 200 times as fast as it happens',
  (seconds * 1000) / played_ms >= 200,
  `${((seconds * 1000) / played_ms).toFixed(0)} times`,
)

// People, walls and a ramp of a whole drive; nothing done in it but to and fro before the lane.
const dunlin = demoMachine('dunlin')
const driven_ms = time(`driving, ${seconds} s of it`, 1, () => {
  const drive = driveOn(dunlin, { seed: 4, level: 1 })
  for (let k = 0; k < seconds * ticks_per_s && !drive.over; k++)
    drive.tick({
      travel: 0.15 * Math.sin((2 * Math.PI * k) / (ticks_per_s * 6)),
      steer: 0.2 * Math.sin((2 * Math.PI * k) / (ticks_per_s * 3)),
      forks: k < 30 ? 1 : 0,
      tilt: k < 60 ? 1 : 0,
      shift: 0,
      horn: k % 400 < 40,
      look: k % 300 < 100,
      brake: false,
      key: false,
      stop: false,
    })
  if (drive.stopped !== null && drive.stopped !== 'too-long') throw new Error(`It ended by itself: ${drive.stopped}.`)
})
wanted(
  'driving 200 times as fast as it happens',
  (seconds * 1000) / driven_ms >= 200,
  `${((seconds * 1000) / driven_ms).toFixed(0)} times`,
)

console.log(`\n${verdicts.join('\n')}`)
if (verdicts.some((v) => v.startsWith('NOT'))) process.exitCode = 1
