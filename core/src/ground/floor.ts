/** Axle loads of the classes for forklifts, newtons, standing: EN 1991-1-1, table 6.6. */
const classes = { FL1: 26_000, FL2: 40_000, FL3: 63_000, FL4: 90_000, FL5: 140_000, FL6: 170_000 } as const

/** What a floor carries: under an axle standing, and under one wheel with its factor. A class gives the axle alone. */
export interface FloorLimits {
  axle_N: number
  /** Null: its class says no more than the axle. */
  wheel_N: number | null
  /** All that stands on it; null: it has no such figure. */
  total_N: number | null
}

/** @returns null where nobody has given a figure */
export function floorLimits(floor: {
  axle_N?: number | undefined
  wheel_N?: number | undefined
  total_N?: number | undefined
  floorClass?: keyof typeof classes | undefined
}): FloorLimits | null {
  const { axle_N, wheel_N, total_N = null, floorClass } = floor
  if (floorClass) return { axle_N: Math.min(classes[floorClass], axle_N ?? Infinity), wheel_N: wheel_N ?? null, total_N }
  return axle_N === undefined || wheel_N === undefined ? null : { axle_N, wheel_N, total_N }
}
