import type { LiftRecord, Shift } from '@geolabe/contract'
import {
  type Assessment,
  findingWords,
  isDrawn,
  type Machine,
  markedParts,
  type NotChecked,
  nominal,
  notCheckedWords,
  preUseOf,
  type SetupPlan,
  type Step,
  sayMetric,
  stopNamed,
  stopWords,
  supportOf,
  type Tol,
  verdictWords,
} from '@geolabe/core'
import PDFDocument from 'pdfkit'
import { bold, ink, mono, quiet, regular } from '../paper/type'

const margin = 42

const tol = (t: Tol | null, unit: 'mass' | 'length') =>
  t === null
    ? 'not known'
    : typeof t === 'number'
      ? sayMetric(unit, t)
      : `${sayMetric(unit, t.value)} ± ${sayMetric(unit, t.tolerance)}`

/** The lift card: a shift on paper, one page a lift, to be carried. Figures are those that were recorded. */
export function liftCard(shift: Shift, machine: Machine, organisation: string): PDFKit.PDFDocument {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: margin, left: margin, right: margin, bottom: 30 },
    info: { Title: `Lift card · ${shift.machine.name}`, Author: organisation },
    lang: 'en-GB',
  })
  const lifts = shift.lifts.length > 0 ? shift.lifts : [null]
  lifts.forEach((lift, i) => {
    if (i > 0) doc.addPage()
    head(doc, shift, organisation, lift ? `Lift ${i + 1} of ${lifts.length}` : 'No lift recorded')
    if (lift) liftPage(doc, shift, lift, machine)
    foot(doc, machine)
  })
  doc.end()
  return doc
}

const day = (iso: string) => new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: 'UTC' })

function head(doc: PDFKit.PDFDocument, shift: Shift, organisation: string, what: string) {
  doc.font(bold).fontSize(24).fillColor(ink).text(`${shift.machine.name} at ${shift.place.name}`)
  doc.font(regular).fontSize(10.5).fillColor(quiet)
  doc.text(`${organisation} · ${shift.operator.name} · ${day(shift.openedAt)} UTC · ${what}`)
  const { entries, finishedAt } = preUseOf(shift)
  const defects = entries.filter((m) => m.result === 'defect').length
  doc.text(
    `Walk-round: ${entries.length} items, ${defects === 0 ? 'no defect' : `${defects} with a defect`}${finishedAt ? '' : ', not finished'}. Site: ${shift.site ? `${shift.site.fit ? 'fit' : 'not fit'} for the job, ${shift.site.team.join(', ')}` : 'not looked at'}.`,
  )
  doc.moveDown(0.6)
}

function liftPage(doc: PDFKit.PDFDocument, shift: Shift, lift: LiftRecord, machine: Machine) {
  const a = lift.assessment
  const setup = shift.setups.find((s) => s.id === lift.setup)
  doc.font(bold).fontSize(30).fillColor(ink).text(verdictWords[a.verdict].long)
  if (a.governing) doc.font(regular).fontSize(11).text(findingWords(a.governing, sayMetric).what)
  doc.moveDown(0.6)
  rows(doc, [
    [
      'Load',
      `${lift.plan.hung.load.name || 'unnamed'} · ${tol(lift.plan.hung.load.mass_kg, 'mass')} (${lift.plan.hung.load.massSource?.replace('-', ' ') ?? 'no source'})`,
    ],
    ['Carried, with all that hangs or lies with it', a.hookLoad_kg === null ? 'not known' : sayMetric('mass', a.hookLoad_kg)],
    ['Rated capacity, worst on the path', a.rated_kg === null ? 'not rated' : sayMetric('mass', a.rated_kg)],
    ...(isDrawn(lift.plan) ? boomRows(lift, setup?.plan) : []),
    ...lift.plan.steps.flatMap((step, i) => stepRows(step, lift.plan.steps.length > 1 ? `${i + 1}. ` : '')),
    ['Wind, read and allowed', windOf(lift)],
  ])
  if (setup) stoodOn(doc, machine, setup.plan, a)
  section(doc, 'What was checked')
  for (const f of a.findings) {
    const w = findingWords(f, sayMetric)
    doc.font(bold).fontSize(9).fillColor(ink).text(`${w.title}: ${verdictWords[f.verdict].short}. `, { continued: true })
    doc.font(regular).fillColor(quiet).text(w.what)
  }
  section(doc, 'What was not checked')
  doc
    .font(regular)
    .fontSize(9)
    .fillColor(ink)
    .text(a.notChecked.map((n) => notCheckedWords[n as NotChecked] ?? n).join(' · '))
  section(doc, 'Outcome')
  doc
    .font(regular)
    .fontSize(10)
    .text(
      lift.outcome
        ? `${lift.outcome.outcome === 'done' ? 'Done' : 'Abandoned'}, ${day(lift.outcome.at)} UTC. ${lift.outcome.reason}`
        : 'Not recorded yet.',
    )
}

/** What only a machine with a boom is set to. */
const boomRows = ({ assessment }: LiftRecord, setup: SetupPlan | undefined): [string, string][] => [
  ['Set the machine’s computer to', assessment.configuration?.label ?? 'no table covers this set-up'],
  ['Parts of line', String(setup?.fitted.partsOfLine ?? 'not said')],
]

function windOf({ conditions: { wind_mps, roofShut }, assessment: { windLimit_mps } }: LiftRecord): string {
  if (roofShut) return 'under a roof, doors shut'
  const read = wind_mps === null ? 'not read' : sayMetric('speed', nominal(wind_mps))
  return `${read} of ${windLimit_mps === null ? '—' : sayMetric('speed', windLimit_mps)}`
}

const pct = (t: Tol | null) => (t === null ? 'not read' : typeof t === 'number' ? `${t} %` : `${t.value} % ± ${t.tolerance} %`)
const fallRows = ({ along_pct, cross_pct }: { along_pct: Tol | null; cross_pct: Tol | null }): [string, string][] => [
  ['Rises to the front by', pct(along_pct)],
  ['Rises to the left by', pct(cross_pct)],
]

/** What it stood on or hung from, and what was fitted or read there. */
function stoodOn(doc: PDFKit.PDFDocument, machine: Machine, { standing, fitted }: SetupPlan, a: Assessment) {
  if (standing.on === 'runway' && machine.runway?.travel) {
    section(doc, machine.runway.travel.label)
    const marks = markedParts.map((part): [string, string] => [
      `Marked on the ${part}`,
      tol(fitted.marks?.[part] ?? null, 'mass'),
    ])
    return rows(doc, marks)
  }
  if (standing.on === 'wheels' && machine.truck) {
    const tool = machine.truck.attachments?.find((x) => x.id === fitted.attachment)?.label ?? fitted.attachment
    section(doc, 'On its wheels')
    return rows(doc, [
      ['Floor', standing.ground?.label ?? 'not named'],
      ...(tool ? [['Fitted', tool] as [string, string]] : []),
      ...(fitted.slabs === undefined ? [] : [['Slabs', String(fitted.slabs)] as [string, string]]),
      ...(fitted.extension_m === undefined ? [] : [['Moved out', sayMetric('length', fitted.extension_m)] as [string, string]]),
    ])
  }
  if (standing.on === 'towers') {
    section(doc, standing.linkage === 'four-links' ? 'On its towers, four links' : 'On its towers, one point a header')
    return rows(doc, [
      ...standing.towers.map((t): [string, string] => [
        `Tower ${t.id}`,
        `${tol(t.x_m, 'length')} ahead, ${tol(t.y_m, 'length')} to the left · ${t.plate?.label ?? 'own footing'} on ${t.ground?.label ?? 'ground not named'}`,
      ]),
      ...fallRows(standing.fall),
    ])
  }
  if (standing.on === 'base') {
    section(doc, 'On its base')
    const papers = standing.certificate
    return rows(doc, [['Papers of the base', papers ? `${papers.id}, until ${papers.until}` : 'not read']])
  }
  if (standing.on === 'tracks') {
    section(doc, 'On its tracks')
    const counterweight = machine.upper?.counterweights.find((c) => c.id === fitted.counterweight)
    return rows(doc, [
      ['Ground', standing.ground?.label ?? 'not named'],
      ['Counterweight', counterweight?.label ?? 'not said'],
    ])
  }
  if (standing.on === 'frame') {
    section(doc, 'On the wheels of its frame')
    return rows(doc, [
      ...standing.hoists.map((h): [string, string] => [`Slings, ${h.id} hoist`, `${tol(h.x_m, 'length')} ahead of the middle`]),
      ['Both hoists', standing.synchronised ?? 'not read'],
      ['Ground', standing.ground?.label ?? 'not named'],
      ...fallRows(standing.fall),
    ])
  }
  const stood = supportOf(machine, standing)
  section(doc, stood.state?.label ?? 'Outriggers')
  rows(
    doc,
    stood.settings.map((l) => {
      const use = a.outriggers.find((u) => u.id === l.id)
      // A corner on its wheels may bear the name of an outrigger.
      const outrigger = standing.on === 'outriggers' && machine.outriggers?.find((m) => m.id === l.id)
      const stop = outrigger && stopNamed(outrigger, l.at.stop)
      return [
        stood.points.find((p) => p.id === l.id)?.label ?? l.id,
        `${stop ? `${stopWords(stop.id, stop.label)} · ` : ''}${l.mat?.label ?? (stop ? 'own pad' : 'wheels')} on ${l.ground?.label ?? 'ground not named'}${use ? ` · up to ${sayMetric('force', use.upper_N)}${use.pressure_kPa === null ? '' : `, ${sayMetric('pressure', use.pressure_kPa)}`}` : ''}`,
      ]
    }),
  )
}

/** One step of a lift: boom, and where from and to; of a folding boom each pose. */
function stepRows(step: Step, before: string): [string, string][] {
  if (step.do === 'pose')
    return step.waypoints.map((p, i) => [
      `${before}Pose ${i + 1}`,
      `inner boom ${sayMetric('angle', p.inner_deg)}, outer folded ${sayMetric('angle', p.fold_deg)}, ${sayMetric('length', p.extension_m)} drawn out, slew ${sayMetric('angle', p.slew_deg)}`,
    ])
  if (step.do === 'reach')
    return step.waypoints.map((w, i) => [
      `${before}Pose ${i + 1}`,
      'boom_m' in w
        ? `boom ${sayMetric('length', w.boom_m)} at ${sayMetric('angle', w.angle_deg)}`
        : `${sayMetric('length', w.height_m)} up, ${sayMetric('length', w.reach_m)} out`,
    ])
  if (step.do === 'mast') return step.waypoints.map((p) => [`${before}Stack at`, sayMetric('length', p.height_m)])
  if (step.do === 'drive')
    return step.way.map((p) => [
      `${before}${p.label || p.kind}`,
      `${sayMetric('length', p.length_m)}, ${p.grade_pct} %, ${step.facing.replace('-', ' ')}`,
    ])
  if (step.do === 'tow')
    return [
      [`${before}Lifted behind`, step.lifted_kg === null ? 'not known' : tol(step.lifted_kg, 'mass')],
      [`${before}Behind the rear axle`, tol(step.overhang_m, 'length')],
      ...step.way.map((p): [string, string] => [
        `${before}${p.label || p.kind}`,
        `${sayMetric('length', p.length_m)}, ${p.grade_pct} %`,
      ]),
    ]
  if (step.do === 'traverse') {
    const along = { trolley: 'along the beam', frame: 'along the track', load: 'to the left of the middle' }[step.of ?? 'trolley']
    return [
      [`${before}From`, `${tol(step.from_m, 'length')} ${along}`],
      [`${before}To`, `${tol(step.to_m, 'length')} ${along}`],
    ]
  }
  if (step.do === 'hoist')
    return [
      [`${before}Raised or lowered from`, tol(step.from_m, 'length')],
      [`${before}To`, tol(step.to_m, 'length')],
    ]
  const { boom_m, pickUp, setDown, slewDirection, laden } = step
  const at = ({ radius_m, slew_deg }: typeof pickUp) => `${tol(radius_m, 'length')} at slew ${sayMetric('angle', slew_deg)}`
  const [from, to] = laden ? ['Pick up', 'Set down'] : ['From, hook empty', 'To']
  return [
    [`${before}Boom`, sayMetric('length', boom_m)],
    [`${before}${from}`, at(pickUp)],
    [`${before}${to}`, `${at(setDown)}, ${slewDirection}`],
  ]
}

function section(doc: PDFKit.PDFDocument, title: string) {
  doc.moveDown(0.7)
  doc.font(bold).fontSize(12).fillColor(ink).text(title)
  doc.moveDown(0.15)
}

function rows(doc: PDFKit.PDFDocument, list: [string, string][]) {
  const left = margin
  const split = 220
  const width = doc.page.width - 2 * margin - split
  for (const [label, value] of list) {
    const y = doc.y
    doc
      .font(regular)
      .fontSize(9.5)
      .fillColor(quiet)
      .text(label, left, y, { width: split - 12 })
    const below = doc.y
    doc
      .font(mono)
      .fontSize(9.5)
      .fillColor(ink)
      .text(value, left + split, y, { width })
    doc.y = Math.max(doc.y, below) + 2
    doc.x = left
  }
}

function foot(doc: PDFKit.PDFDocument, machine: Machine) {
  const text = machine.cautions.join(' ')
  const width = doc.page.width - 2 * margin
  doc.font(regular).fontSize(8)
  const height = doc.heightOfString(text, { width })
  doc.fillColor(quiet).text(text, margin, doc.page.height - 34 - height, { width, lineBreak: true })
}
