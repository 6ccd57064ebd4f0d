import type { RatingTable, TableAxes } from '../src'

/** A rating table as it was written when the sums of the fixture were kept: a shape by name, each with fields of its own. */
interface TableThen {
  shape: string
  linearPermitted?: boolean
  wind?: object | null
  configurations: ({ id: string; label: string; rows: { ratings_kg: unknown[]; basis?: unknown[] }[] } & Record<
    string,
    unknown
  >)[]
}

type Axis = TableAxes['row']
const by = (quantity: Axis['quantity'], label: string, reading: Axis['reading'], trend: Axis['trend']): Axis => ({
  quantity,
  label,
  reading,
  trend,
})
const radius = by('radius_m', 'Radius', 'neighbours', 'falls')
const per = by('per', 'Per', 'listed', null)
const axesThen: Record<string, [row: Axis, column: Axis]> = {
  'boom-radius': [radius, by('boom_m', 'Boom', 'neighbours', null)],
  lattice: [radius, by('boom_m', 'Boom', 'neighbours', null)],
  'radius-section': [radius, by('boom_m', 'Drawn to', 'neighbours', null)],
  'radius-reeving': [radius, by('parts', 'Parts', 'listed', 'rises')],
  'angle-stage': [by('angle_deg', 'Angle', 'neighbours', 'rises'), by('boom_m', 'Boom', 'neighbours', 'falls')],
  'height-reach': [by('height_m', 'Height', 'up-to', 'falls'), by('reach_m', 'Reach', 'up-to', 'falls')],
  plate: [by('liftHeight_m', 'Lift height', 'holds', 'falls'), by('loadCentre_m', 'Load centre', 'holds', 'falls')],
  'slabs-extension': [by('extension_m', 'Extension', 'listed', 'rises'), by('slabs', 'Slabs', 'listed', 'rises')],
  'height-stage': [by('height_m', 'Up to', 'holds', 'falls'), per],
  hoists: [by('hoist', 'Hoist', 'listed', null), per],
  'tool-reach': [by('reach_m', 'Reach', 'neighbours', 'falls'), per],
  marks: [by('part', 'Marked on', 'listed', null), per],
}

function configurationOf(c: TableThen['configurations'][number], row: Axis, column: Axis): unknown {
  const { id, label, rows, sections, footprint, counterweight_kg, fullyExtended, [column.quantity]: columns, ...rest } = c
  const standing =
    footprint === undefined
      ? {}
      : { standing: { footprint, counterweight_kg, ...(fullyExtended === undefined ? {} : { fullyExtended }) } }
  return {
    id,
    label,
    appliesTo: { ...standing, ...rest },
    columns,
    ...(sections === undefined ? {} : { columnNames: sections }),
    rows: rows.map(({ [row.quantity as 'basis']: at, ...r }) => ({ at, ...r })),
  }
}

/** The same table as it is written today. */
export function tableNow(then: object): unknown {
  const { shape, configurations, linearPermitted, wind, ...head } = then as TableThen
  const axes = axesThen[shape]
  if (!axes) throw new Error(`no table had the shape ${shape}`)
  const [row, column] = axes
  return {
    ...head,
    axes: { row, column },
    ...(linearPermitted ? { linearPermitted } : {}),
    ...(wind ? { wind } : {}),
    configurations: configurations.map((c) => configurationOf(c, row, column)),
  } satisfies Partial<Record<keyof RatingTable, unknown>> & { configurations: unknown[] }
}

const partsNow: Record<string, string> = { tail_m: 'tailSwingRadius_m', legs: 'outriggers' }
/** Outriggers of a machine; slings have legs too, which have no stops. */
function outriggersNow(legs: unknown): unknown {
  if (!Array.isArray(legs)) return legs
  return legs.map((leg) => {
    if (typeof leg !== 'object' || leg === null || !('positions' in leg) || !('pad' in leg)) return leg
    const { pad, positions, ...rest } = leg
    const stops = Object.entries(Object(positions)).map(([stop, at]) => [stopsNow[stop] ?? stop, at])
    return { ...rest, float: pad, positions: Object.fromEntries(stops) }
  })
}

/** Every table inside an input, and what a machine’s geometry calls things, written as today. */
export function withTablesNow(input: unknown): unknown {
  if (Array.isArray(input)) return input.map(withTablesNow)
  if (typeof input !== 'object' || input === null) return input
  if ('shape' in input && 'configurations' in input) return tableNow(input)
  const plain = Object.entries(input).map(([key, v]) => [
    partsNow[key] ?? key,
    key === 'legs' ? outriggersNow(v) : withTablesNow(v),
  ])
  return Object.fromEntries(plain)
}

/** Cells that a figure was read from were then by radius and boom, whatever the axes counted. */
export function cellsNow(was: unknown, input: { chart: { shape: string }; hoist?: { parts: number } }): unknown {
  if (Array.isArray(was)) return was.map((x) => cellsNow(x, input))
  if (typeof was !== 'object' || was === null) return was
  if ('radius_m' in was && 'rating_kg' in was && 'boom_m' in was) {
    const column = input.chart.shape === 'radius-reeving' ? input.hoist?.parts : was.boom_m
    return { row: was.radius_m, column, rating_kg: was.rating_kg }
  }
  if ('refused' in was && was.refused === 'other-shape') return { refused: 'other-axes', path: 'chart.axes' }
  return Object.fromEntries(Object.entries(was).map(([key, v]) => [key, cellsNow(v, input)]))
}

/** Words of plans, findings and changes, then and today (docs/terms.md). */
const keysNow: Record<string, string> = {
  stand: 'position',
  legs: 'outriggers',
  leg: 'outrigger',
  bubbleProved: 'levelVerified',
  sailArea_m2: 'windArea_m2',
  pick: 'pickUp',
  set: 'setDown',
  turn: 'slewDirection',
  radiusKnown: 'radiusBasis',
  onHook_kg: 'hookLoad_kg',
  doubt: 'uncertainty',
  parts: 'partsOfLine',
}
const wordsNow: Record<string, string> = {
  leg: 'outrigger',
  line: 'hoist-rope',
  reach: 'boom-limits',
  stability: 'overturning',
  'set-slew': 'set-down-slew',
  turn: 'slew-direction',
  parts: 'parts-of-line',
}
const stopsNow: Record<string, string> = { in: 'retracted', middle: 'intermediate', full: 'fullyExtended' }

/** A lift and its set-up as they were written then: one motion, and the reeving with it. */
export interface PlansThen {
  setup: { counterweight: string; outriggers: ({ extension: string } & Record<string, unknown>)[] } & Record<string, unknown>
  lift: { load: unknown; rigging: unknown; partsOfLine: number; configuration?: string } & Record<string, unknown>
}

/** The same plans, written as today: a standing, what is fitted, what hangs, steps. */
export function plansNow({ setup, lift }: PlansThen) {
  const { counterweight, outriggers, ...stands } = setup
  const { load, rigging, partsOfLine, configuration, ...step } = lift
  return {
    setup: {
      ...stands,
      format: 'geolabe.setup/2',
      standing: { on: 'outriggers', outriggers: outriggers.map(({ extension, ...o }) => ({ ...o, at: { stop: extension } })) },
      fitted: { counterweight, partsOfLine },
    },
    lift: { format: 'geolabe.lift/2', hung: { load, rigging }, steps: [{ do: 'slew', ...step }], configuration },
  }
}

/** The same value in today's words. */
export function inWordsNow(then: unknown, key = ''): unknown {
  if (typeof then === 'string') {
    if (key === 'extension') return stopsNow[then] ?? then
    if (key === 'basis') return then
    return then.replace(/^[a-z-]+(?=:|$)/, (word) => wordsNow[word] ?? word)
  }
  if (Array.isArray(then)) return then.map((v) => inWordsNow(v, key))
  if (typeof then !== 'object' || then === null) return then
  return Object.fromEntries(Object.entries(then).map(([k, v]) => [keysNow[k] ?? k, inWordsNow(v, k)]))
}
