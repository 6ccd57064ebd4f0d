import type { ChangeMeasure } from './judge-change'

/** How a kind of wear is judged: what the reading is taken against, how much is allowed, from which rule. Data, no branches. */
export type WearRule =
  | { by: 'loss' | 'growth' | 'either'; limit_share: number; most_mm?: number; unit: string; label: string; source: string }
  | { by: 'share'; limit_share: number; unit: string; label: string; source: string }
  | { by: 'range'; around: number; most: number; unit: string; label: string; source: string }
  | { by: 'maker'; direction: 'least' | 'most'; limit?: number; unit: string; label: string; source: string }

/** Limits where a standard states one; the maker's goes before it. Lengths in millimetres unless the unit says otherwise. */
export const wearRules = {
  'fork-heel': { by: 'loss', limit_share: 0.1, unit: 'mm', label: 'Fork heel against the shank', source: 'ISO 5057: 10 %' },
  'fork-tips': {
    by: 'share',
    limit_share: 0.03,
    unit: 'mm',
    label: 'Difference of the tips’ heights over the blade’s length',
    source: 'ISO 5057: 3 % of the blade',
  },
  'fork-angle': {
    by: 'range',
    around: 90,
    most: 3,
    unit: '°',
    label: 'Angle of blade to shank',
    source: 'ISO 5057: within 3° of as made (90°)',
  },
  'mast-chain': {
    by: 'growth',
    limit_share: 0.03,
    unit: 'mm',
    label: 'Length over the same number of links',
    source: 'ISO 4347 practice, ASME B56.1: 3 %',
  },
  'hoist-chain': {
    by: 'growth',
    limit_share: 0.015,
    unit: 'mm',
    label: 'Length over the same number of links',
    source: 'ASME B30.16: 1.5 %',
  },
  'hook-throat': {
    by: 'growth',
    limit_share: 0.05,
    most_mm: 6,
    unit: 'mm',
    label: 'Throat opening',
    source: 'ASME B30.10: 5 %, not over 6 mm',
  },
  'hook-seat': { by: 'loss', limit_share: 0.1, unit: 'mm', label: 'Thickness at the seat', source: 'ASME B30.10: 10 %' },
  'hook-twist': { by: 'range', around: 0, most: 10, unit: '°', label: 'Twist out of plane', source: 'ASME B30.10: 10°' },
  'rope-rotation-resistant': {
    by: 'loss',
    limit_share: 0.05,
    unit: 'mm',
    label: 'Diameter, rotation-resistant rope',
    source: 'ISO 4309: 5 %',
  },
  'rope-steel-core': {
    by: 'loss',
    limit_share: 0.075,
    unit: 'mm',
    label: 'Diameter, single-layer rope with steel core',
    source: 'ISO 4309: 7.5 %',
  },
  'rope-fibre-core': {
    by: 'loss',
    limit_share: 0.1,
    unit: 'mm',
    label: 'Diameter, single-layer rope with fibre core',
    source: 'ISO 4309: 10 %',
  },
  'broken-wires-6d': {
    by: 'maker',
    direction: 'most',
    unit: 'wires',
    label: 'Broken wires over six diameters',
    source: 'ISO 4309, by the rope’s category number',
  },
  'broken-wires-30d': {
    by: 'maker',
    direction: 'most',
    unit: 'wires',
    label: 'Broken wires over thirty diameters',
    source: 'ISO 4309, by the rope’s category number',
  },
  'tyre-tread': { by: 'maker', direction: 'least', unit: 'mm', label: 'Tread left', source: 'The maker’s or the law’s figure' },
  'tyre-pressure': {
    by: 'either',
    limit_share: 0.1,
    unit: 'kPa',
    label: 'Pressure against the plate',
    source: 'Practice: 10 % under or over, unless the maker says otherwise',
  },
  'axle-tyres': {
    by: 'maker',
    direction: 'most',
    unit: 'mm',
    label: 'Difference of diameters on one axle',
    source: 'The maker’s figure',
  },
  'wheel-studs': {
    by: 'maker',
    direction: 'most',
    limit: 0,
    unit: 'missing',
    label: 'Studs or nuts missing or without even thread',
    source: 'None may be missing',
  },
  'battery-play': {
    by: 'maker',
    direction: 'most',
    unit: 'mm',
    label: 'Play of the battery in its compartment',
    source: 'The maker’s figure',
  },
} as const satisfies Record<string, WearRule>
export type WearKind = keyof typeof wearRules
export const wearKinds = Object.keys(wearRules) as [WearKind, ...WearKind[]]

/** From this share of a limit on a reading is watched. */
export const watchFrom_share = 0.7

/** The measure for a loss or growth of this kind, so that both are judged by one rule. */
export function measureOf(
  rule: Extract<WearRule, { by: 'loss' | 'growth' | 'either' }>,
  nominal: number,
  maker_share?: number,
): ChangeMeasure {
  const standard = rule.most_mm === undefined ? rule.limit_share : Math.min(rule.limit_share, rule.most_mm / nominal)
  const limit_share = maker_share ?? standard
  return {
    kind: rule.by,
    label: rule.label,
    unit: rule.unit,
    nominal,
    limit_share,
    watch_share: limit_share * watchFrom_share,
    source: maker_share === undefined ? rule.source : 'The maker’s limit',
  }
}
