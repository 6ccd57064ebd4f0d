import { z } from 'zod'
import { groundKind, matKind } from '../../place/place'
import { finite, notNegative, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { SupportModel } from './support'

export const extension = z.enum(['retracted', 'intermediate', 'fullyExtended'])
export type Extension = z.infer<typeof extension>

const footPosition = z.strictObject({ x_m: finite, y_m: finite })

/** One outrigger: where its foot stands at each stop, its jack's travel, its strength, its pad. */
export const outrigger = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  positions: z.strictObject({
    retracted: footPosition,
    intermediate: footPosition,
    fullyExtended: footPosition,
  }),
  /** Jack's ends; the foot leaves the ground below min. */
  stroke: z.strictObject({ min_m: notNegative, max_m: positive }),
  /** The greatest load the leg's own structure may carry. */
  capacity_N: positive,
  float: z.strictObject({ length_m: positive, width_m: positive }),
})
export type Outrigger = z.infer<typeof outrigger>

/** How one outrigger is set: how far out, how far its jack is run out, what it stands on. */
const outriggerSetting = z.strictObject({
  id: z.string().min(1),
  at: z.strictObject({ stop: extension }),
  /** Null: the outrigger's own float stands on the ground. */
  mat: matKind.nullable(),
  /** Null: nobody has said what it stands on; its ground is then not proven. */
  ground: groundKind.nullable(),
  stroke_m: notNegative,
})
export type OutriggerSetting = z.infer<typeof outriggerSetting>

/** Standing on outriggers, as a set-up plan has it. */
export const onOutriggers = z.strictObject({ on: z.literal('outriggers'), outriggers: z.array(outriggerSetting) })

/** Standing on outriggers: beams with three stops, all wheels clear. */
export function outriggerSupport(outriggers: readonly Outrigger[]): SupportModel<Extension> {
  const stops = extension.options
  return {
    points: outriggers,
    contactsOf: (settings) =>
      outriggers.map((outrigger) => {
        const chosen = settings.find((s) => s.id === outrigger.id)
        if (!chosen) throw new Refusal('missing-leg', `Say how far ${outrigger.label} is out.`, 'setup.standing.outriggers')
        return { id: outrigger.id, ...outrigger.positions[chosen.at.stop] }
      }),
    furtherOut: (stop) => stops.slice(stops.indexOf(stop) + 1),
  }
}
