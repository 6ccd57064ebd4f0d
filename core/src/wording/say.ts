import type { Quantity } from '../finding/finding'

/** Turns a figure into words with its unit; the interface passes one that follows the person's choice of units. */
export type Say = (quantity: Quantity, value: number) => string

const fixed = (v: number, digits: number) =>
  v.toLocaleString('en-GB', { minimumFractionDigits: digits, maximumFractionDigits: digits })

/** SI, for commands, exports and records. */
export const sayMetric: Say = (quantity, value) => {
  switch (quantity) {
    case 'mass':
      return `${fixed(value, 0)} kg`
    case 'length':
      return `${fixed(value, 2)} m`
    case 'area':
      return `${fixed(value, 1)} m²`
    case 'pressure':
      return `${fixed(value, 0)} kPa`
    case 'force':
      return `${fixed(value / 1000, 0)} kN`
    case 'speed':
      return `${fixed(value, 1)} m/s`
    case 'angle':
      return `${fixed(value, 1)}°`
    case 'share':
      return `${fixed(value * 100, 0)} %`
  }
}
