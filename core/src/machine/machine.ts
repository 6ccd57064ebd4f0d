import { z } from 'zod'
import { finite, positive } from '../calculator/measured'
import { walkround } from '../inspection/walkround'
import { procedure } from '../procedure/procedure'
import { machineParts } from './parts'

export const labelled = z.strictObject({ id: z.string().min(1), label: z.string().min(1) })

const polygon = z.strictObject({
  name: z.string().min(1),
  /** Pairs of metres: plan (x, y) or side (x, z). */
  points: z.array(z.tuple([finite, finite])).min(3),
  /** Drawn turned with the superstructure. */
  slews: z.boolean().optional(),
  shade: z.enum(['body', 'cab', 'wheel', 'dark', 'light']),
})

/**
 * A machine as data. What a kind of machine lacks it leaves out: a forklift has no boom, a chain hoist no supports. Adding a
 * machine needs no code.
 */
export const machineDefinition = z.strictObject({
  format: z.literal('geolabe.machine/1'),
  id: z.string().regex(/^[a-z][a-z0-9-]*$/, 'Small letters, figures and hyphens, beginning with a letter.'),
  name: z.string().min(1),
  kind: z.strictObject({ id: z.string().min(1), label: z.string().min(1) }),
  revision: z.int().min(1),
  /** One line that tells it from its neighbours. */
  note: z.string(),
  licence: z.strictObject({ class: z.string().min(1), label: z.string().min(1) }),
  wear: z.array(labelled),
  papers: z.array(labelled),
  hours: z.strictObject({ label: z.string().min(1) }).optional(),
  outline: z.strictObject({ plan: z.array(polygon), side: z.array(polygon) }),
  ...machineParts,
  /** Share of the rated capacity at which the machine itself warns. */
  approachAlarm_share: positive.max(0.95, 'At most 95 %.').optional(),
  tables: z.array(z.string()),
  walkround,
  procedures: z.strictObject({ setup: procedure, lift: procedure, stow: procedure }),
  /** What the maker's book says above all else, shown before a lift. */
  cautions: z.array(z.string().min(1)),
})
export type Machine = z.infer<typeof machineDefinition>
export type Polygon = z.infer<typeof polygon>
