import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calculatorNamed, isRefusal } from '../src'

/**
 * Laws that hold whatever the figures: when these inputs are made k times as much, those outputs become k to a power times as
 * much, and nothing else changes. Paths with * go through every entry.
 */
interface Law {
  name: string
  what: string
  /** Field → power of k it is multiplied with. */
  inputs: Record<string, number>
  outputs: Record<string, number>
  with?: object
}
const laws: Law[] = [
  {
    name: 'support-reactions',
    what: 'masses: loads grow with them, where the weight stands does not',
    inputs: { 'masses.*.mass_kg': 1 },
    outputs: { 'reactions.*.reaction_N': 1, 'reactions.*.upper_N': 1, 'resultant.x_m': 0, margin_m: 0 },
  },
  {
    name: 'support-reactions',
    what: 'lengths: a larger machine of the same weight loads its legs alike',
    inputs: { 'supports.*.x_m': 1, 'supports.*.y_m': 1, 'masses.*.x_m': 1, 'masses.*.y_m': 1 },
    outputs: { 'reactions.*.reaction_N': 0, margin_m: 1 },
  },
  {
    name: 'tipping-load',
    what: 'masses: a machine twice as heavy tips at twice the load',
    inputs: { 'masses.*.mass_kg': 1, 'slewing.*.mass_kg': 1 },
    outputs: { tippingLoad_kg: 1, ratedByStability_kg: 1 },
  },
  {
    name: 'tipping-load',
    what: 'lengths: size alone changes nothing',
    inputs: {
      'supports.*.x_m': 1,
      'supports.*.y_m': 1,
      'masses.*.x_m': 1,
      'masses.*.y_m': 1,
      'slewing.*.radius_m': 1,
      radius_m: 1,
    },
    outputs: { tippingLoad_kg: 0 },
  },
  {
    name: 'reaction-envelope',
    what: 'masses',
    inputs: { 'masses.*.mass_kg': 1, 'slewing.*.mass_kg': 1 },
    outputs: { 'supports.*.max_N': 1, 'supports.*.min_N': 1, 'supports.*.upper_N': 1, 'margin.least_m': 0 },
  },
  {
    name: 'boom-raising',
    what: 'masses',
    inputs: { 'boom.*.mass_kg': 1, 'base.mass_kg': 1, 'counterweight.mass_kg': 1 },
    outputs: { greatestPendant_N: 1, counterweightNeeded_kg: 1, 'angles.*.frontMargin_m': 0 },
  },
  {
    name: 'backward-stability',
    what: 'masses and wind together',
    inputs: { 'masses.*.mass_kg': 1, 'slewing.*.mass_kg': 1, wind_N: 1 },
    outputs: { least_m: 0, backwardShare: 0 },
  },
  {
    name: 'sling-tension',
    what: 'mass',
    inputs: { mass_kg: 1 },
    outputs: { 'legs.*.tension_N': 1, 'legs.*.angle_deg': 0, headroom_m: 0 },
  },
  { name: 'load-sharing', what: 'mass', inputs: { mass_kg: 1 }, outputs: { 'hooks.*.load_kg': 1, 'hooks.*.share': 0 } },
  {
    name: 'load-mass',
    what: 'lengths: volumes, areas, places',
    inputs: Object.fromEntries(
      ['length_m', 'width_m', 'height_m', 'diameter_m', 'at.x_m', 'at.y_m', 'at.z_m'].map((f) => [`parts.*.${f}`, 1]),
    ),
    outputs: { mass_kg: 3, 'sailArea_m2.x': 2, 'extents.x_m': 1, 'cg.x_m': 1 },
    with: {
      parts: [
        { shape: 'box', length_m: 2, width_m: 1, height_m: 1, material: 'steel', at: { x_m: 1, y_m: 0, z_m: 0.5 } },
        { shape: 'sphere', diameter_m: 0.5, material: 'lead', at: { x_m: -1, y_m: 0.2, z_m: 0.3 } },
      ],
    },
  },
  {
    name: 'hydraulic-force',
    what: 'pressures',
    inputs: { base_kPa: 1, rodSide_kPa: 1, friction_N: 1 },
    outputs: { net_N: 1, raising_N: 1, lowering_N: 1, base_m2: 0 },
  },
  {
    name: 'axle-loads',
    what: 'masses',
    inputs: { 'truck.mass_kg': 1, 'load.mass_kg': 1 },
    outputs: { front_N: 1, rear_N: 1, worstWheel_N: 1, frontShare: 0, plateSide_m: 0.5 },
  },
  {
    name: 'stability-triangle',
    what: 'masses change nothing',
    inputs: { 'masses.*.mass_kg': 1 },
    outputs: { x_m: 0, y_m: 0, tipSpeed_mps: 0 },
  },
  {
    name: 'tail-swing',
    what: 'lengths',
    inputs: {
      wheelbase_m: 1,
      halfWidth_m: 1,
      tailOverhang_m: 1,
      'load.faceAhead_m': 1,
      'load.length_m': 1,
      'load.width_m': 1,
      clearance_m: 1,
    },
    outputs: { turnCentre_m: 1, tailRadius_m: 1, aisle_m: 1, sweptWidth_m: 1 },
  },
  { name: 'track-pressure', what: 'force', inputs: { force_N: 1 }, outputs: { 'tracks.*.max_kPa': 1, 'tracks.*.contact_m': 0 } },
  {
    name: 'wind-load',
    what: 'speed: force with its square',
    inputs: { speed_mps: 1 },
    outputs: { force_N: 2, drift_m: 2, moment_Nm: 2 },
  },
  {
    name: 'wind-limit',
    what: 'mass and sail together change nothing',
    inputs: { mass_kg: 1, sailArea_m2: 1 },
    outputs: { limit_mps: 0 },
  },
  { name: 'wind-at-height', what: 'speed', inputs: { speed_mps: 1 }, outputs: { gust_mps: 1, factor: 0 } },
  {
    name: 'swing',
    what: 'length: the period with its root',
    inputs: { ropeLength_m: 1 },
    outputs: { period_s: 0.5, quietRamp_s: 0.5 },
    with: { ramp: undefined },
  },
  { name: 'winch-pull', what: 'mass', inputs: { mass_kg: 1 }, outputs: { pull_N: 1, line_N: 1, anchor_N: 1 } },
  {
    name: 'recovery',
    what: 'lengths change nothing',
    inputs: { overhang_m: 1, wheelbase_m: 1 },
    outputs: { frontLeft_N: 0, greatestPull_N: 0 },
  },
  {
    name: 'telescopic-geometry',
    what: 'lengths: the same angle',
    inputs: { boom_m: 1, radius_m: 1, 'pivot.back_m': 1, 'pivot.height_m': 1, headOffset_m: 1 },
    outputs: { tip_height_m: 1, angle_deg: 0 },
  },
  {
    name: 'articulated-geometry',
    what: 'lengths',
    inputs: { 'inner.length_m': 1, 'outer.length_m': 1, 'outer.extension_m': 1, 'pivot.back_m': 1, 'pivot.height_m': 1 },
    outputs: { radius_m: 1, height_m: 1 },
  },
  {
    name: 'hook-travel',
    what: 'lengths',
    inputs: { boomExtension_m: 1, lineOut_m: 1, gap_m: 1 },
    outputs: { gapChange_m: 1, extensionUntilTwoBlock_m: 1, lineToHoldHeight_m: 1 },
  },
  { name: 'level-effect', what: 'height', inputs: { height_m: 1 }, outputs: { radiusChange_m: 1, side_m: 1, sideLoadShare: 0 } },
  {
    name: 'truck-rating',
    what: 'plate: its figures',
    inputs: { 'plate.*.capacity_kg': 1, 'load.mass_kg': 1 },
    outputs: { allowed_kg: 1, utilisation: 0 },
  },
  {
    name: 'chart-reading',
    what: 'every mass of table, load and line',
    inputs: { 'chart.configurations.*.rows.*.ratings_kg.*': 1, load_kg: 1, 'deductions.*.mass_kg': 1, 'hoist.linePull_N': 1 },
    outputs: { gross_kg: 1, net_kg: 1, utilisation: 0 },
  },
  { name: 'edge-setback', what: 'lengths', inputs: { padEdgeToToe_m: 1, depth_m: 1 }, outputs: { required_m: 1, short_m: 1 } },
  {
    name: 'bubble-check',
    what: 'readings',
    inputs: { first_deg: 1, turned_deg: 1, fixed_deg: 1 },
    outputs: { true_deg: 1, error_deg: 1, fixedError_deg: 1 },
  },
  {
    name: 'hoist-chain-rating',
    what: 'all masses',
    inputs: { hoist_kg: 1, trolley_kg: 1, beam_kg: 1, hook_kg: 1, onBeam_kg: 1, load_kg: 1, rigging_kg: 1 },
    outputs: { allowed_kg: 1, utilisation: 0 },
  },
  {
    name: 'height-rating',
    what: 'loads',
    inputs: { 'towers.*.load_kg': 1 },
    outputs: { 'towers.*.utilisation': 1, perTower_kg: 0 },
  },
]

type Tree = Record<string, unknown>
const plain = (v: unknown): unknown => {
  if (typeof v !== 'object' || v === null) return v
  if (Array.isArray(v)) return v.map(plain)
  const o = v as Tree
  if ('value' in o && 'tolerance' in o) return o.value
  return Object.fromEntries(Object.entries(o).map(([k, x]) => [k, plain(x)]))
}
/** Every place that a path with * names, as its owner and key. */
function placesOf(root: unknown, path: string): [Tree, string][] {
  const [head, ...rest] = path.split('.') as [string, ...string[]]
  if (typeof root !== 'object' || root === null) return []
  const o = root as Tree
  const keys = head === '*' ? Object.keys(o) : head in o ? [head] : []
  return rest.length === 0 ? keys.map((k) => [o, k]) : keys.flatMap((k) => placesOf(o[k], rest.join('.')))
}
const figures = (root: unknown, path: string) => placesOf(root, path).map(([o, k]) => o[k] as number)

describe('laws of scale', () => {
  it.each(laws.map((l) => [`${l.name}: ${l.what}`, l] as const))('%s', (_words, law) => {
    const c = calculatorNamed(law.name)
    if (!c) throw new Error(law.name)
    const base = plain({ ...c.example, ...law.with }) as Tree
    for (const [k, v] of Object.entries(law.with ?? {})) if (v === undefined) delete base[k]
    const first = c.run(base)
    expect(isRefusal(first)).toBe(false)
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 2, noNaN: true }), (k) => {
        const input = structuredClone(base)
        for (const [path, power] of Object.entries(law.inputs)) {
          for (const [o, key] of placesOf(input, path)) if (typeof o[key] === 'number') o[key] = (o[key] as number) * k ** power
        }
        const next = c.run(input)
        if (isRefusal(next)) throw new Error(JSON.stringify(next))
        for (const [path, power] of Object.entries(law.outputs)) {
          const [was, now] = [figures(first, path), figures(next, path)]
          expect(was.length, path).toBeGreaterThan(0)
          was.forEach((v, i) => {
            const wanted = v * k ** power
            expect(Math.abs((now[i] as number) - wanted), `${path} at k = ${k}`).toBeLessThanOrEqual(
              1e-6 * Math.max(1, Math.abs(wanted)),
            )
          })
        }
      }),
      { numRuns: 25 },
    )
  })
})

describe('laws of order', () => {
  /** More of one input never makes an output less (or more): whatever the amount. */
  const orders: { name: string; input: string; output: string; goes: 'up' | 'down' }[] = [
    { name: 'ground-pressure', input: 'reaction_N', output: 'formation_kPa', goes: 'up' },
    { name: 'ground-pressure', input: 'mat.thickness_m', output: 'formation_kPa', goes: 'down' },
    { name: 'ground-pressure', input: 'reaction_N', output: 'requiredSide_m', goes: 'up' },
    { name: 'tipping-load', input: 'radius_m', output: 'tippingLoad_kg', goes: 'down' },
    { name: 'wind-limit', input: 'sailArea_m2', output: 'limit_mps', goes: 'down' },
    { name: 'wind-limit', input: 'mass_kg', output: 'limit_mps', goes: 'up' },
    { name: 'wind-at-height', input: 'height_m', output: 'gust_mps', goes: 'up' },
    { name: 'chart-reading', input: 'radius_m', output: 'net_kg', goes: 'down' },
    { name: 'chart-reading', input: 'deductions.0.mass_kg', output: 'net_kg', goes: 'down' },
    { name: 'stability-triangle', input: 'speed_mps', output: 'margins.right_m', goes: 'down' },
    { name: 'stability-triangle', input: 'braking_mps2', output: 'margins.front_m', goes: 'down' },
    { name: 'axle-loads', input: 'load.aheadOfFront_m', output: 'rear_N', goes: 'down' },
    { name: 'recovery', input: 'overhang_m', output: 'frontLeft_N', goes: 'down' },
    { name: 'winch-pull', input: 'slope_deg', output: 'pull_N', goes: 'up' },
    { name: 'swing', input: 'ropeLength_m', output: 'period_s', goes: 'up' },
    { name: 'swing', input: 'startAmplitude_deg', output: 'period_s', goes: 'up' },
    { name: 'load-sharing', input: 'two.tilt_deg', output: 'hooks.0.load_kg', goes: 'up' },
    { name: 'sling-tension', input: 'hook.z_m', output: 'legs.0.tension_N', goes: 'down' },
    { name: 'truck-rating', input: 'load.centre_m', output: 'allowed_kg', goes: 'down' },
    { name: 'track-pressure', input: 'eccentricityLong_m', output: 'tracks.0.max_kPa', goes: 'up' },
    { name: 'edge-setback', input: 'depth_m', output: 'required_m', goes: 'up' },
    { name: 'tail-swing', input: 'steer_deg', output: 'turnCentre_m', goes: 'down' },
  ]
  it.each(orders.map((o) => [`${o.name}: more ${o.input}, ${o.output} goes ${o.goes} or stays`, o] as const))('%s', (_w, o) => {
    const c = calculatorNamed(o.name)
    const base = plain(c?.example) as Tree
    const at = (share: number) => {
      const input = structuredClone(base)
      for (const [owner, key] of placesOf(input, o.input)) owner[key] = (owner[key] as number) * share
      const out = c?.run(input)
      return isRefusal(out) ? null : (figures(out, o.output)[0] as number | 'not-rated')
    }
    fc.assert(
      fc.property(fc.double({ min: 0.6, max: 1.4, noNaN: true }), fc.double({ min: 0.6, max: 1.4, noNaN: true }), (a, b) => {
        const [less, more] = [at(Math.min(a, b)), at(Math.max(a, b))]
        if (typeof less !== 'number' || typeof more !== 'number') return
        const slack = 1e-9 * Math.max(1, Math.abs(less))
        if (o.goes === 'up') expect(more).toBeGreaterThanOrEqual(less - slack)
        else expect(more).toBeLessThanOrEqual(less + slack)
      }),
      { numRuns: 60 },
    )
  })
})
