import { z } from 'zod'
import { controlMap, noControls, stopControl } from '../controls/controls'
import { defectPolicy } from '../defect/grade'
import { duty } from '../due/duty'
import { energy } from '../due/energy'
import { walkround } from '../inspection/walkround'
import { machineParts } from '../parts/parts'
import { procedureFile } from '../procedure/file'
import { finite, positive } from '../quantity/measured'
import { nameId } from '../quantity/name-id'
import { symptomPath } from '../troubleshooting/path'
import { shown } from '../troubleshooting/shown'
import { evidence } from './needs'
import { plateField } from './plate'

export const labelled = z.strictObject({ id: z.string().min(1), label: z.string().min(1) })

const polygon = z.strictObject({
  name: z.string().min(1),
  /** Pairs of metres: plan (x, y) or side (x, z). */
  points: z.array(z.tuple([finite, finite])).min(3),
  /** Drawn turned with the superstructure. */
  slews: z.boolean().optional(),
  /** Moves with the boom: drawn where it lies only while the boom lies there. */
  raised: z.boolean().optional(),
  shade: z.enum(['body', 'cab', 'wheel', 'dark', 'light']),
  /** What carries, and how it is made; left out: shell and covers. */
  made: z.enum(['frame', 'lattice', 'sections', 'rails', 'track']).optional(),
})

/** How the outline of a round thing is written in a file: centre and radius, metres. */
const roundShape = polygon.omit({ points: true }).extend({ circle: z.tuple([finite, finite, positive]) })
/** An upright box: two opposite corners, metres. */
const boxShape = polygon.omit({ points: true }).extend({ box: z.tuple([finite, finite, finite, finite]) })

const circleCorners = 20

/** A part of an outline as it is written: a polygon, a circle, a box; read as a polygon. */
const outlinePart = z.union([polygon, roundShape, boxShape]).transform((s): z.infer<typeof polygon> => {
  if ('points' in s) return s
  if ('box' in s) {
    const { box, ...rest } = s
    const [x0, y0, x1, y1] = box
    return {
      ...rest,
      points: [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ],
    }
  }
  const { circle, ...rest } = s
  const [cx, cy, r] = circle
  const corner = (i: number): [number, number] => {
    const a = (i / circleCorners) * 2 * Math.PI
    return [Math.round((cx + r * Math.cos(a)) * 1000) / 1000, Math.round((cy + r * Math.sin(a)) * 1000) / 1000]
  }
  return { ...rest, points: Array.from({ length: circleCorners }, (_, i) => corner(i)) }
})

/**
 * A machine as data. What a kind of machine lacks it leaves out: a forklift has no boom, a chain hoist no supports. Adding a
 * machine needs no code.
 */
export const machineDefinition = z.strictObject({
  format: z.literal('geolabe.machine/1'),
  id: nameId,
  name: z.string().min(1),
  kind: z.strictObject({ id: z.string().min(1), label: z.string().min(1) }),
  revision: z.int().min(1),
  /** One line that tells it from its neighbours. */
  note: z.string(),
  licence: z.strictObject({ class: z.string().min(1), label: z.string().min(1) }),
  /** Personal protective equipment that is worn at it. */
  ppe: z.array(labelled),
  /** Documents that have to be with it. */
  documents: z.array(labelled),
  hours: z.strictObject({ label: z.string().min(1) }).optional(),
  outline: z.strictObject({ plan: z.array(outlinePart).min(1), side: z.array(outlinePart).min(1) }),
  ...machineParts,
  /** Share of the rated capacity at which the machine itself warns. */
  approachAlarm_share: positive.max(0.95, 'At most 95 %.').optional(),
  tables: z.array(z.string()),
  walkround,
  /** The map of controls; what each stop kills; what may be overridden, and for what. */
  controls: controlMap.default(noControls),
  stops: z.array(stopControl).default([]),
  /** What the rating plate says is entered once, field by field, and compared ever after. */
  plateFields: z.array(plateField).default([]),
  duties: z.array(duty).default([]),
  energy: energy.optional(),
  /** Lamps and codes that it may show, each with its answer. */
  shows: z.array(shown).default([]),
  /** Short ways from a symptom in work to continue, stop or call. */
  symptoms: z.array(symptomPath).default([]),
  defectPolicy: defectPolicy.default('operator-grades'),
  /** What has to be confirmed before a load; which of it in which way of standing, the ways say. */
  evidence: z.array(evidence).default([]),
  /** Its sequences as state models: what each step needs, and what must never be. */
  procedures: procedureFile,
  /** What the maker's book says above all else, shown before a lift. */
  cautions: z.array(z.string().min(1)),
})
export type Machine = z.infer<typeof machineDefinition>
export type Polygon = z.infer<typeof polygon>
