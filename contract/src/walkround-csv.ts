import {
  type Measure,
  measureLabel,
  measureUnit,
  parseOrRefuse,
  Refusal,
  type WalkItem,
  type Walkround,
  type WalkroundTemplate,
  walkroundTemplate,
  wearKinds,
} from '@geolabe/core'
import Papa from 'papaparse'
import { fileFigure } from './figures'

/** The columns of a walk-round in a spreadsheet: one row an item; a zone's own columns may be left empty after its first row. */
export const walkroundColumns = [
  'zone',
  'zone_label',
  'part',
  'at_x_m',
  'at_y_m',
  'item',
  'label',
  'look',
  'good',
  'bad',
  'why',
  'where',
  'cover',
  'may_be_missing',
  'least_grade',
  'occasions',
  'measure',
  'measure_label',
  'unit',
  'least',
  'most',
  'nominal',
  'limit',
  'watch',
  'every_days',
  'source',
] as const
type Column = (typeof walkroundColumns)[number]
type Line = Record<Column, string>

function measureCells(m: Measure | undefined): Partial<Record<Column, string | number>> {
  if (!m) return {}
  const head = {
    measure: m.kind === 'wear' ? m.wear : m.kind,
    measure_label: measureLabel(m),
    unit: measureUnit(m),
    every_days: m.every_days ?? '',
  }
  if (m.kind === 'range') return { ...head, least: m.least, most: m.most, watch: m.watchWithin ?? '', source: m.source }
  if (m.kind === 'wear') return { ...head, nominal: m.nominal ?? '', limit: m.makerLimit ?? '', source: m.source ?? '' }
  return { ...head, nominal: m.nominal, limit: m.limit_share, watch: m.watch_share, source: m.source }
}

/** A walk-round for a spreadsheet. */
export function walkroundToCsv(w: Walkround): string {
  const rows = w.zones.flatMap((z) =>
    z.items.map((item) => ({
      zone: z.id,
      zone_label: z.label,
      part: z.part,
      at_x_m: z.at[0],
      at_y_m: z.at[1],
      item: item.id,
      label: item.label,
      look: item.look,
      good: item.good ?? '',
      bad: item.bad ?? '',
      why: item.why ?? '',
      where: item.where ?? '',
      cover: item.cover ?? '',
      may_be_missing: item.mayBeMissing ? 'yes' : '',
      least_grade: item.leastGrade ?? '',
      occasions: (item.occasions ?? ['pre-use']).join(' '),
      ...measureCells(item.measure),
    })),
  )
  return Papa.unparse({ fields: [...walkroundColumns], data: rows }, { newline: '\n', escapeFormulae: true })
}

const wrong = (line: number, column: string, message: string) =>
  new Refusal('bad-csv', `Line ${line}, column “${column}”: ${message}`, `${line}.${column}`)

/**
 * A walk-round from a spreadsheet, all or nothing.
 * @throws Refusal `bad-csv` naming line and column; and what the walk-round's own schema refuses, with the line of the item.
 */
export function csvToWalkround(csv: string, machine: string, revision: number, before: readonly string[]): WalkroundTemplate {
  const parsed = Papa.parse<Line>(csv.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transform: (v) => v.trim(),
  })
  const fault = parsed.errors.find((e) => e.type !== 'Delimiter')
  if (fault) throw wrong((fault.row ?? 0) + 2, '', fault.message)
  const missing = ['zone', 'zone_label', 'part', 'item', 'label', 'look'].find((c) => !parsed.meta.fields?.includes(c))
  if (missing) throw wrong(1, missing, 'This column is missing.')
  const zones: { head: Line; line: number; items: { item: object; line: number }[] }[] = []
  parsed.data.forEach((r, i) => {
    const line = i + 2
    const known = zones.find((z) => z.head.zone === r.zone)
    if (!r.zone) throw wrong(line, 'zone', 'Say which zone the item belongs to.')
    if (known && known !== zones.at(-1)) throw wrong(line, 'zone', `Zone “${r.zone}” has ended already; keep its rows together.`)
    const at = { item: itemFrom(r, line), line }
    if (known) known.items.push(at)
    else zones.push({ head: r, line, items: [at] })
  })
  if (zones.length === 0) throw wrong(2, 'zone', 'There is no item in this file.')
  const raw = {
    format: 'geolabe.walkround/1',
    machine,
    revision,
    before,
    zones: zones.map((z) => ({
      id: z.head.zone,
      label: z.head.zone_label,
      part: z.head.part,
      at: [figure(z.head, 'at_x_m', z.line) ?? 0, figure(z.head, 'at_y_m', z.line) ?? 0],
      items: z.items.map((x) => x.item),
    })),
  }
  try {
    return parseOrRefuse(walkroundTemplate, raw)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    const [, zi, field, ii, ...rest] = e.path.split('.')
    const zone = zones[Number(zi)]
    const line = field === 'items' ? zone?.items[Number(ii)]?.line : zone?.line
    throw line === undefined ? e : wrong(line, (field === 'items' ? rest.join('.') : field) || 'item', e.message)
  }
}

function figure(r: Line, column: Column, line: number): number | undefined {
  const text = r[column] ?? ''
  if (text === '') return undefined
  try {
    return fileFigure(text)
  } catch (e) {
    throw wrong(line, column, (e as Error).message)
  }
}

function itemFrom(r: Line, line: number): object {
  const words = (['good', 'bad', 'why', 'where', 'cover'] as const).flatMap((k) => (r[k] ? [[k, r[k]] as const] : []))
  const yes = (r.may_be_missing ?? '').toLowerCase()
  if (!['', 'yes', 'no'].includes(yes)) throw wrong(line, 'may_be_missing', 'Write yes, no, or nothing.')
  const occasions = (r.occasions ?? '').split(/[ ,;]+/).filter(Boolean)
  const m = measureFrom(r, line)
  const item: Partial<WalkItem> & Record<string, unknown> = {
    id: r.item,
    label: r.label,
    look: r.look,
    ...Object.fromEntries(words),
  }
  if (yes === 'yes') item.mayBeMissing = true
  if (r.least_grade) item.leastGrade = r.least_grade as WalkItem['leastGrade']
  if (occasions.length > 0) item.occasions = occasions as WalkItem['occasions']
  if (m) item.measure = m as Measure
  return item
}

function measureFrom(r: Line, line: number): object | undefined {
  const kind = r.measure ?? ''
  if (kind === '') return undefined
  const f = (c: Column) => figure(r, c, line)
  const every = f('every_days')
  const due = every === undefined ? {} : { every_days: every }
  const need = (c: Column) => {
    const v = f(c)
    if (v === undefined) throw wrong(line, c, 'This measure needs it.')
    return v
  }
  if (kind === 'range') {
    const watch = f('watch')
    return {
      kind,
      label: r.measure_label,
      unit: r.unit,
      least: need('least'),
      most: need('most'),
      source: r.source,
      ...(watch === undefined ? {} : { watchWithin: watch }),
      ...due,
    }
  }
  if (kind === 'loss' || kind === 'growth') {
    return {
      kind,
      label: r.measure_label,
      unit: r.unit,
      nominal: need('nominal'),
      limit_share: need('limit'),
      watch_share: need('watch'),
      source: r.source,
      ...due,
    }
  }
  if (!(wearKinds as readonly string[]).includes(kind)) {
    throw wrong(line, 'measure', `“${kind}” is no measure. Write range, loss, growth, or one of: ${wearKinds.join(', ')}.`)
  }
  const [nominal, limit] = [f('nominal'), f('limit')]
  return {
    kind: 'wear',
    wear: kind,
    ...(r.measure_label ? { label: r.measure_label } : {}),
    ...(nominal === undefined ? {} : { nominal }),
    ...(limit === undefined ? {} : { makerLimit: limit }),
    ...(r.source ? { source: r.source } : {}),
    ...due,
  }
}
