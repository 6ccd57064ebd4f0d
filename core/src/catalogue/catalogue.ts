import type { Calculator } from '../calculator/define'
import { boomLimitsCalculator } from '../clearance/boom-limits'
import { clearanceCalculator } from '../clearance/clearance'
import { edgeSetbackCalculator } from '../ground/edge-setback'
import { groundPressureCalculator } from '../ground/ground-pressure'
import { lineApproachCalculator } from '../ground/line-approach'
import { trackPressureCalculator } from '../ground/track-pressure'
import { hydraulicForceCalculator } from '../hydraulic/hydraulic-force'
import { alternatingLowerCalculator } from '../levelling/alternating-lower'
import { bubbleCheckCalculator } from '../levelling/bubble-check'
import { levelEffectCalculator } from '../levelling/level-effect'
import { levellingCalculator } from '../levelling/levelling'
import { sectionSlideCalculator } from '../levelling/section-slide'
import { loadMassCalculator } from '../load/load-mass'
import { endsWeightCalculator, supportsWeightCalculator } from '../load/weigh'
import { articulatedGeometryCalculator } from '../parts/booms/articulated-geometry'
import { telescopicGeometryCalculator } from '../parts/booms/telescopic-geometry'
import { unfoldClearanceCalculator } from '../parts/booms/unfold-clearance'
import { hookTravelCalculator } from '../parts/hoists/hook-travel'
import { chartReadingCalculator } from '../rating/chart-reading'
import { tableCheckCalculator } from '../rating/limit/table-check'
import { counterweightRatingCalculator, heightRatingCalculator, hoistChainRatingCalculator } from '../rating/listed-ratings'
import { articulatedRatingCalculator, stageRatingCalculator } from '../rating/stage-rating'
import { supportChoiceCalculator } from '../rating/support-choice'
import { truckRatingCalculator } from '../rating/truck-rating'
import { recoveryCalculator } from '../recovery/recovery'
import { winchPullCalculator } from '../recovery/winch-pull'
import { loadSharingCalculator } from '../rigging/load-sharing'
import { slingTensionCalculator } from '../rigging/sling-tension'
import { syncTiltCalculator } from '../rigging/sync-tilt'
import { backwardStabilityCalculator } from '../statics/backward-stability'
import { boomPropsCalculator } from '../statics/boom-props'
import { boomRaisingCalculator } from '../statics/boom-raising'
import { footLiftCalculator } from '../statics/foot-lift'
import { reactionEnvelopeCalculator } from '../statics/reaction-envelope'
import { runwayBeamCalculator } from '../statics/runway-beam'
import { supportReactionsCalculator } from '../statics/support-reactions'
import { tippingLoadCalculator } from '../statics/tipping-load'
import { swingCalculator } from '../swing/swing'
import { axleLoadsCalculator } from '../truck/axle-loads'
import { stabilityTriangleCalculator } from '../truck/stability-triangle'
import { tailSwingCalculator } from '../truck/tail-swing'
import { wearCalculator } from '../wear/wear'
import { wearTrendCalculator } from '../wear/wear-trend'
import { beaufortCalculator } from '../wind/beaufort'
import { windAtHeightCalculator } from '../wind/wind-at-height'
import { windLimitCalculator } from '../wind/wind-limit'
import { windLoadCalculator } from '../wind/wind-load'
import { capacityMapCalculator } from '../working-area/map-calculator'

/** A step of the work and the calculators that serve it. */
export interface CalculatorGroup {
  id: 'walk-round' | 'site' | 'set-up' | 'load' | 'rating' | 'trucks' | 'wind' | 'pull'
  label: string
  calculators: readonly Calculator[]
}

/** Every calculator, grouped in the order of the work. Screens, server, commands and workers all take them from here. */
export const calculatorGroups: readonly CalculatorGroup[] = [
  { id: 'walk-round', label: 'Walk-round', calculators: [wearCalculator, wearTrendCalculator] },
  {
    id: 'site',
    label: 'Site and ground',
    calculators: [
      lineApproachCalculator,
      edgeSetbackCalculator,
      groundPressureCalculator,
      trackPressureCalculator,
      clearanceCalculator,
      boomLimitsCalculator,
    ],
  },
  {
    id: 'set-up',
    label: 'Set up and stand',
    calculators: [
      bubbleCheckCalculator,
      levellingCalculator,
      levelEffectCalculator,
      alternatingLowerCalculator,
      sectionSlideCalculator,
      supportReactionsCalculator,
      reactionEnvelopeCalculator,
      tippingLoadCalculator,
      backwardStabilityCalculator,
      boomRaisingCalculator,
      footLiftCalculator,
    ],
  },
  {
    id: 'load',
    label: 'Load and rigging',
    calculators: [
      loadMassCalculator,
      endsWeightCalculator,
      supportsWeightCalculator,
      slingTensionCalculator,
      loadSharingCalculator,
      syncTiltCalculator,
      hydraulicForceCalculator,
    ],
  },
  {
    id: 'rating',
    label: 'Radius and rating',
    calculators: [
      telescopicGeometryCalculator,
      articulatedGeometryCalculator,
      unfoldClearanceCalculator,
      hookTravelCalculator,
      chartReadingCalculator,
      supportChoiceCalculator,
      stageRatingCalculator,
      articulatedRatingCalculator,
      counterweightRatingCalculator,
      heightRatingCalculator,
      hoistChainRatingCalculator,
      runwayBeamCalculator,
      capacityMapCalculator,
      tableCheckCalculator,
    ],
  },
  {
    id: 'trucks',
    label: 'Forklifts and floors',
    calculators: [truckRatingCalculator, axleLoadsCalculator, stabilityTriangleCalculator, tailSwingCalculator],
  },
  {
    id: 'wind',
    label: 'Wind and swing',
    calculators: [beaufortCalculator, windAtHeightCalculator, windLimitCalculator, windLoadCalculator, swingCalculator],
  },
  { id: 'pull', label: 'Recovery', calculators: [winchPullCalculator, recoveryCalculator, boomPropsCalculator] },
]

export const calculators: readonly Calculator[] = calculatorGroups.flatMap((g) => g.calculators)

export function calculatorNamed(name: string): Calculator | undefined {
  return calculators.find((c) => c.name === name)
}
