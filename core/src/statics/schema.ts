import { z } from 'zod'
import { finite, measured, measuredNotNegative, positive } from '../quantity/measured'

/** Supports and masses as the calculators take them; see the engineering basis for the frame and signs. */
export const supportInput = z.strictObject({
  id: z.string().min(1),
  x_m: measured,
  y_m: measured,
  stiffness_N_per_m: positive.optional(),
})
export const massInput = z.strictObject({ mass_kg: measuredNotNegative, x_m: measured, y_m: measured })
export const slewingInput = z.strictObject({
  mass_kg: measuredNotNegative,
  radius_m: measured,
  offset_deg: finite.optional(),
})

export const footingInput = {
  supports: z.array(supportInput).max(32),
  masses: z.array(massInput).max(1000),
  moment_x_Nm: measured.optional(),
  moment_y_Nm: measured.optional(),
}

export interface Mass {
  mass_kg: number
  x_m: number
  y_m: number
}

/** A mass that turns with the superstructure: at slew s it stands at radius_m, s + offset_deg. Negative radius: behind. */
export interface SlewingMass {
  mass_kg: number
  radius_m: number
  offset_deg?: number | undefined
}

export interface Moments {
  moment_x_Nm?: number | undefined
  moment_y_Nm?: number | undefined
}
