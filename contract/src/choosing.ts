import { type Answer, conditions, finite, type Meeting, type Proved, type Space, wantedLift } from '@geolabe/core'
import { z } from 'zod'

/** A lift that somebody has in mind, and the air it is done in. */
export const whichMachineRequest = z.strictObject({ wanted: wantedLift, conditions })
export type WhichMachineRequest = z.input<typeof whichMachineRequest>

/** Where one machine could stand for it, about a point of the place. */
export const whichPositionRequest = whichMachineRequest.extend({
  machine: z.string().min(1),
  near: z.strictObject({ x_m: finite, y_m: finite }),
})
export type WhichPositionRequest = z.input<typeof whichPositionRequest>

/** What one machine could do, with whatever keeps whoever asks from taking it today. */
export type MachineChoice = Answer & { bars: { code: string; why: string }[] }
export interface MachineChoices {
  answers: MachineChoice[]
}
export interface PositionChoices {
  positions: (Proved & { away_m: number })[]
}

/** A machine that somebody has at a place now: how it is set up, and the lift that was proved last; null: not yet. */
export interface AtPlace {
  id: string
  name: string
  shift: string
  operator: string
  setUp: boolean
  lift: string | null
  /** The room that it takes up, in the place's metres; none while it is not set up. */
  spaces: Space[]
}
/** Every machine that works at a place now, and how near they come to one another. */
export interface AtWorkPage {
  machines: AtPlace[]
  meetings: Meeting[]
}
