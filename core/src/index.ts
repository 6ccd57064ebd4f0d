export {
  type AssemblyInput,
  type AssemblyPlan,
  type AssemblyTask,
  assemblyInput,
  assemblyPlan,
  assemblyTask,
  type Scheduled,
} from './assembly/plan'
export { assess } from './assess/assess'
export { assessSetup, type SetupAssessment } from './assess/assess-setup'
export { type Assessment, assessment, type NotChecked } from './assess/assessment'
export { withBounds } from './calculator/bounds'
export { answer, type Calculator, parseOrRefuse } from './calculator/define'
export { plainBounds, plainIssue } from './calculator/plain-issue'
export { implausible } from './calculator/plausible'
export { type TransferToLift, transferToLift } from './calculator/transfer'
export type { Worse } from './calculator/worse'
export { type CalculatorGroup, calculatorGroups, calculatorNamed, calculators } from './catalogue/catalogue'
export { type Reckoning, reckonedBy, type Short } from './catalogue/computed'
export { NOT_RATED } from './check/area'
export { checks } from './check/checks'
export { tailIsLow } from './check/crew-stands'
export { dueChecks } from './check/due'
export { rowsFor } from './check/gantry'
export { gantryRoom } from './check/gantry-people'
export { TowContext, type Tower, tows } from './check/tow-context'
export { sweptTowing } from './check/towing'
export { tracksRound } from './check/tracks'
export { fittedOf } from './check/truck-context'
export { type Answer, answerOf, byMargin, byVerdict, byWork, type Proved, whichMachine, whichPosition } from './choosing/choose'
export { routeTo } from './choosing/route-to'
export { type WantedLift, wantedLift } from './choosing/wanted'
export { type Asked, type Assumed, type Effort, type Offered, type Stand, type Unable, type Way, workOf } from './choosing/way'
export { bodiesAt } from './clearance/body'
export { boomLimitsCalculator } from './clearance/boom-limits'
export type { Clearance } from './clearance/clearance'
export { clearanceCalculator } from './clearance/clearance'
export type { Obstacle } from './clearance/obstacle'
export { type Outline, outlineDistance, planDistance } from './clearance/standing'
export {
  type Control,
  type ControlMap,
  type ControlPlace,
  type ControlWay,
  controlMap,
  controlsAgainst,
  type Device,
  type DoneBy,
  returningWords,
  type ShownControl,
  wayWords,
} from './controls/controls'
export {
  type DefectPolicy,
  type DefectState,
  defectState,
  type Grade,
  grade,
  gradeBy,
  gradesFrom,
  gradeWords,
  isClosed,
  isGraver,
  stopsMachine,
  watchIsOver,
} from './defect/grade'
export { type DefectAction, defectActions, defectMoves, whyNot } from './defect/moves'
export { boxOf, type DrawingLayer, type PlanDrawing, type Stroke } from './drawing/drawing'
export { isDrawn, planDrawing } from './drawing/plan-drawing'
export { svgOf } from './drawing/svg'
export { alongWay, type Crossing, comesUp, type DriveCourse, driveCourse, type Pick, pointOnWay } from './driving/course'
export { centred_m, type DriverActs, type DriveStop, leastRoom_share, picked_m, TruckDrive, type Walker } from './driving/drive'
export { canDrive, type DrivenTruck, drivenTruck, overallLength, type TruckEdge, truckEdges } from './driving/driven-truck'
export { footprint, inSight } from './driving/footprint'
export { bendSpeeds, lookAhead } from './driving/look-ahead'
export { type DriveMarks, driveMarks } from './driving/marks'
export { drivenOn, type TruckPose } from './driving/pose'
export { type DriveRule, driveRules, leftWell, type RuleMark } from './driving/rules'
export {
  actsFrom,
  allOff,
  type DriveNotes,
  type DrivePoint,
  type DriveRun,
  type DriverSwitch,
  driveLessons,
  driveOn,
  driveRun,
  driverSwitches,
  driveVersion,
  frees,
  markDrive,
  playDrive,
} from './driving/run'
export { standingOn } from './driving/slope'
export { stoppingDistance } from './driving/stopping'
export { isOver, leaningOn, overAfter, tipsAt_mps2 } from './driving/tipping'
export { TruckMotion } from './driving/truck-motion'
export type { Duty } from './due/duty'
export { energyPlan } from './due/energy'
export { byUrgency, hoursPerDay, nextDue } from './due/next-due'
export {
  byUse,
  type Finding,
  finding,
  governingOf,
  isWorse,
  type Quantity,
  shareOf,
  type Verdict,
  verdict,
  worseVerdict,
  worstVerdict,
} from './finding/finding'
export { type CheckName, checkNames, reasons, type Said } from './finding/reasons'
export { edgeSetback, edgeSetbackCalculator } from './ground/edge-setback'
export {
  type GroundPressure,
  groundPressure,
  groundPressureCalculator,
  groundUse,
  type Mat,
  matReach,
} from './ground/ground-pressure'
export { lineApproach, lineApproachCalculator } from './ground/line-approach'
export { trackPressure, trackPressureCalculator } from './ground/track-pressure'
export { type AskedSignal, type DrawnSignal, drawnSignals, type SignalId, signalIds } from './hand-signals/hand-signal'
export { handoverLines } from './handover/compose'
export { hydraulicForce, hydraulicForceCalculator } from './hydraulic/hydraulic-force'
export { type InspectionFacts, memoryPatterns } from './inspection/from-memory'
export { judge } from './inspection/judge'
export { limitsOf, type Measure, measureLabel, measureUnit, wearsTowards } from './inspection/measure'
export { nearLimits } from './inspection/near-limit'
export { type Piece, piecesFile, type WalkroundTemplate, walkroundTemplate, writtenOut } from './inspection/pieces'
export { queryReading } from './inspection/query-reading'
export { intervalOf_days, readingsDue } from './inspection/reading-due'
export { type ReadingTrend, readingTrend } from './inspection/reading-trend'
export { soundReading } from './inspection/sound-reading'
export {
  isRaised,
  itemsOf,
  type Occasion,
  occasion,
  occasionWords,
  type Placed,
  type WalkItem,
  type Walkround,
  walkPart,
  walkPartWords,
  walkround,
  type Zone,
} from './inspection/walkround'
export { type Calibration, calibrationFrom, calibrationOf, type Sureness } from './judgement/calibration'
export { type Item, itemsFrom, type JudgedOn, type Mistake, mistakes, mistakesOn, type Opinion, opinions } from './judgement/item'
export { type JudgePoint, judgeLessons } from './judgement/lessons'
export { isRight, type Judged, type Marks, marksOf, type Sure, surenesses } from './judgement/marks'
export { type PartItem, type PartReading, partLines } from './judgement/part-item'
export { isSeenFault, type PartFault, type PartPlace, type Plate, partFaults, type SeenFault } from './judgement/plates'
export {
  type Answered,
  itemsARound,
  itemsOfRound,
  type JudgeResult,
  type JudgeRound,
  judgeRound,
  judgeVersion,
  markRound,
} from './judgement/round'
export { isAtFoot, type StandFault, type StandItem, standFaults } from './judgement/stand-item'
export { type Above, type Misreading, misreadings, type TableItem } from './judgement/table-item'
export { type WayItem, wayFaults } from './judgement/way-item'
export { type WindFigures, type WindItem, windFaults } from './judgement/wind-item'
export { alternatingLowerCalculator, type Lowering, loweringBy } from './levelling/alternating-lower'
export { bubbleCheck, bubbleCheckCalculator } from './levelling/bubble-check'
export { levelEffect, levelEffectCalculator } from './levelling/level-effect'
export { type Levelling, levelling, levellingCalculator, tiltOf } from './levelling/levelling'
export { sectionSlideCalculator } from './levelling/section-slide'
export { type Case, nearShareOf } from './lift/case'
export { motionsOf } from './lift/motion'
export { pathOf } from './lift/path'
export {
  type Crew,
  conditions,
  type Hung,
  type LiftPlan,
  liftPlan,
  type SetupPlan,
  type Standing,
  type Step,
  setupPlan,
} from './lift/plan'
export { machineFootLift, type RaisingWay, raisingWay } from './lift/raising'
export type { RemedyKind } from './lift/remedy'
export { loadMass, loadMassCalculator } from './load/load-mass'
export { type Shape, solidOf } from './load/shape'
export { endsWeightCalculator, supportsWeightCalculator, weighByEnds } from './load/weigh'
export { composeMachine } from './machine/compose'
export { type Crane, liftsOnHook, liftsOnOutriggers, type OutriggerCrane } from './machine/crane'
export { type Machine, machineDefinition, type Polygon } from './machine/machine'
export { type MachineModel, machineModel, modelOf } from './machine/model'
export { askedFor, type Evidence } from './machine/needs'
export type { PlateField, PlateValue } from './machine/plate'
export {
  type GantryMachine,
  isGantry,
  isProvable,
  isRunway,
  isStraddle,
  isTruck,
  type RunwayMachine,
  type StraddleMachine,
  type TruckMachine,
} from './machine/provable'
export { foldingStretches, jointsOf } from './parts/booms/articulated'
export { articulatedGeometryCalculator, foldingPoses, foldingTip } from './parts/booms/articulated-geometry'
export { foldingOf, straightBoom } from './parts/booms/boom-model'
export type { ArticulatedPose } from './parts/booms/pose'
export { jointsFor, pointAt, poseFor, type ReachPart, type ReachPoint, type ReachPose } from './parts/booms/reach'
export type { BoomPart } from './parts/booms/telescopic'
export { telescopicBoom } from './parts/booms/telescopic'
export type { BoomPose } from './parts/booms/telescopic-geometry'
export { poseAtAngle, poseAtRadius, telescopicGeometryCalculator } from './parts/booms/telescopic-geometry'
export { leastInner, unfoldClearanceCalculator } from './parts/booms/unfold-clearance'
export { type MotionName, motionNames } from './parts/drives'
export type { EyePart } from './parts/eye'
export { type GantryPart, towersOf } from './parts/gantry'
export { hookTravel, hookTravelCalculator } from './parts/hoists/hook-travel'
export { lineLimit_kg } from './parts/hoists/rope'
export { beamOf, type MarkedPart, type MarksRead, markedParts, type TraverseStep } from './parts/runway'
export type { PoseStep } from './parts/stability/pose'
export type { HookPoint, SlewStep } from './parts/stability/slew'
export { poseMachine } from './parts/stability/slewing'
export { outwardShift_m } from './parts/stability/stability'
export type { StandRole } from './parts/stand-role'
export { counterweightNamed, upperMasses } from './parts/superstructure'
export { keepsFootFrom } from './parts/supports/feet'
export {
  feetOf,
  type Outrigger,
  type OutriggerSetting,
  type OutriggerStop,
  stopNamed,
  stopsOf,
} from './parts/supports/outriggers'
export { type PropsPart, propContacts } from './parts/supports/props'
export { outriggersIn, standsToTow, supportOf } from './parts/supports/states'
export type { SupportModel, SupportState } from './parts/supports/support'
export type { TowPart, TowStep } from './parts/tow'
export { type DrivingMotion, drivingMotions } from './parts/truck'
export type { DriveStep, MastStep, ReachStep, WayPart } from './parts/truck-steps'
export { most_pieces } from './parts/truck-steps'
export { forKindOf, type Impediment, impedimentsTo, licenceExpiries } from './people/may-operate'
export { type Licence, licence, type Role, role, roleWords } from './people/person'
export { type PersonRef, personRef } from './person-ref'
export { g_mps2, normalDegrees, rad } from './physics'
export {
  type Feature,
  feature,
  type LoadSize,
  type MassSource,
  type MatKind,
  type Place,
  placeDefinition,
  position,
  sitePolicy,
  usualNear_share,
} from './place/place'
export { answerIn, isSofter, type PolicyQuestion, policyQuestions, usualPolicy, withAnswer } from './place/policies'
export { certificate_days } from './place/practice-policy'
export {
  distanceToFeature,
  groundAt,
  inPolygon,
  inTheWay,
  type MachinePosition,
  toMachine,
  toPlace,
  weakestUnder,
} from './place/standing'
export { crushGap_m, tailGap } from './place/tail'
export { contains, convexHull, insideLine, marginInside, sizeOf } from './plane/hull'
export { atSlew, distanceToSegment, type Point, turn } from './plane/point'
export { inSector } from './plane/sector'
export {
  type ByHand,
  first_level,
  neverPractised,
  type Offer,
  type PracticeAsked,
  type Practised,
  practiceAsked,
} from './practice/asked'
export { type Attempt, attemptsOf, type CatchWord, type Fault, judgeCatch } from './practice/attempts'
export { type BlindSpot, isOutOfSight } from './practice/blind-spot'
export { type Call, type Called, calledIn, calledTo } from './practice/called'
export { certificateSays, practisedOn } from './practice/certificate'
export { type Course, courseFor, type LoadSet, loadSet, type StartSwing } from './practice/course'
export { Drill, longest_ticks, type Sample, type Stopped } from './practice/drill'
export { checkInputs, fullLever, type LeverInputs, LeverNotes } from './practice/inputs'
export { type LoadPoint, loadLessons } from './practice/lessons'
export { LoadMotion } from './practice/load-motion'
export { type Move, movesOf, movesOfLever } from './practice/moves'
export { fromPeople_m } from './practice/on-foot'
export { catchSpeed, type Plane, planesOn } from './practice/planes'
export { lastAttempts, type Progress, progressOf } from './practice/progress'
export { randomFrom } from './practice/random'
export { referenceRun } from './practice/reference-driver'
export { canPractise, type Rig, restingAt, rigOf } from './practice/rig'
export { placeOfRing, type Ring } from './practice/ring'
export { keyEvery_ticks, type LoadRun, loadRun, type Played, playRun, practiceOn, practiceVersion, stepsOf } from './practice/run'
export { headOf } from './practice/run-head'
export { type Bar, barOf, type LegScore, pointsOf, type RunScore, scoreOf } from './practice/score'
export { type Lesson, recallAfter, type WeakPoint, weakPointAfter } from './practice/weak-point'
export {
  checkProcedures,
  exploreProcedure,
  type FindingCode,
  type ProcedureFinding,
} from './procedure/analysis'
export { type OrderChange, type OrderPart, orderChanges } from './procedure/changes'
export {
  type CalcCondition,
  type Condition,
  condition as procedureCondition,
  type Facts,
  holds,
  type StateValue,
  type Truth,
  unknown,
} from './procedure/condition'
export { type EmergencyCard, emergencyCards } from './procedure/emergency'
export {
  admits,
  ahead,
  isDone,
  type Next,
  next,
  nextTold,
  type Permission,
  permitted,
  reached,
  stepsNow,
  wayTo,
} from './procedure/engine'
export { type OrderAct, type OrderEvent, orderAct, orderEvent } from './procedure/event'
export {
  concerns,
  hazard,
  type Losing,
  losing,
  type Need,
  type OrderPartName,
  type OrderStation,
  type Override,
  orderParts,
  type Procedure,
  type ProcedureFile,
  procedureFile,
  type Step as ProcedureStep,
  setBy,
  statesOf as statesOfRule,
  step as procedureStep,
  stepsOfFile,
} from './procedure/file'
export { neversOf, onPaper, type PaperStep } from './procedure/paper'
export { type ProcedurePieces, type ProcedureSource, procedurePieces, procedureSource, writtenFlat } from './procedure/source'
export { asPlanned, hasOrder, isAwaited, offered, owedAt, provedBy, toConfirm, usualOf, walkThrough } from './procedure/walk'
export {
  apply,
  differing,
  factsOf,
  firstWorld,
  isFarOff,
  type Last,
  replay,
  stateWords,
  valuesOf,
  type World,
  withPlan,
} from './procedure/world'
export { isoDate, moment } from './quantity/date'
export { finite, high, low, type Nominal, nominal, type Tol } from './quantity/measured'
export {
  type Axis,
  type AxisQuantity,
  axesTitle,
  entriesFor,
  goBy,
  sameAxes,
  type TableAxes,
  type Trend,
  tableAxes,
  unitOfAxis,
} from './rating/axes'
export {
  type ChartReading,
  chartPlace,
  chartReading,
  chartReadingCalculator,
  isReadByChart,
  type ReadingInput,
} from './rating/chart-reading'
export { outriggersShortOf } from './rating/covers'
export { changesBetween, withCell } from './rating/grid'
export { cellLimit } from './rating/limit/limit'
export { type OddCell, oddCells, tableCheckCalculator } from './rating/limit/table-check'
export { counterweightRatingCalculator, heightRatingCalculator, hoistChainRatingCalculator } from './rating/listed-ratings'
export { expectedOnPlate, type PlateFault, plateFault } from './rating/plate'
export { ratedAtSlew, ratingAt } from './rating/read'
export { articulatedRatingCalculator, stageRatingCalculator } from './rating/stage-rating'
export { supportChoiceCalculator, supportRatings } from './rating/support-choice'
export {
  type RatingConfiguration,
  type RatingTable,
  ratingTable,
  rowFigures,
  type StandingConfiguration,
  saysStanding,
} from './rating/table'
export { type PlateRow, type TruckRating, truckRating, truckRatingCalculator } from './rating/truck-rating'
export { recovery, recoveryCalculator } from './recovery/recovery'
export { winchPull, winchPullCalculator } from './recovery/winch-pull'
export { isRefusal, Refusal } from './refusal'
export { nearestRemedies } from './remedy/nearest'
export type { Remedy } from './remedy/remedy'
export { type SupportOption, supportChoice } from './remedy/support-choice'
export { hitchShare } from './rigging/hitch'
export { loadSharingCalculator, shareOfTwo } from './rigging/load-sharing'
export { legForces, slingTension, slingTensionCalculator } from './rigging/sling-tension'
export { lengthsOf, liftPoints, type Slings } from './rigging/slings'
export { syncTiltCalculator } from './rigging/sync-tilt'
export { boundary, leastOn, peakBetween } from './search'
export { type SequenceAct, sequenceAct, type TimedAct } from './sequence/act'
export { offerAt, restsOn, type SequenceCourse, statesOfCourse } from './sequence/course'
export { type Following, type RefusedTry, SequenceDrill, type Told } from './sequence/drill'
export { type Cue, isCue, type Loss, losses, type SequenceFault, unlistedThings } from './sequence/fault'
export { canSequence, sequenceCourse } from './sequence/generate'
export { marksOfDrill, type SequenceMarks, type SequencePoint, sequencePoints } from './sequence/marks'
export { answerTo, keep } from './sequence/reference'
export { drillAfter, markSequence, type SequenceRun, sequenceLessons, sequenceRun, sequenceVersion } from './sequence/run'
export { type ShiftEvent, type ShiftEventKind, shiftEvent } from './shift/event'
export { isAlike, type OrderPlace, orderOf, partOfPlan, shareOfRating, withClosures } from './shift/order'
export { leftReason, project, withEvent } from './shift/project'
export { type HeldStation, holding, type ShiftStanding } from './shift/readiness'
export {
  type EntryResult,
  entryResult,
  type Handover,
  handover,
  type Inspection,
  type InspectionEntry,
  inspection,
  inspectionEntry,
  type LiftRecord,
  leftAsItStands,
  liftOutcome,
  liftRecord,
  preUseOf,
  type SetupRecord,
  type Shift,
  type SiteRecord,
  setupRecord,
  shift,
  siteRecord,
  walkedEvidence,
} from './shift/shift'
export { givenAgain, knownBy } from './signals/again'
export { isCalling, type Prompt, signalCourse, silence_s } from './signals/course'
export { type Given, type ShownSituation, shownBy } from './signals/giving'
export { type Response, type SignalFault, type SignalMarks, signalFaults, signalMarks } from './signals/marks'
export { canSignal, markSignals, mostLatency_s, type SignalRun, signalLessons, signalRun, signalVersion } from './signals/run'
export { movesOn, type Wanted } from './signals/signal'
export { isByEitherArm, type SignallersWay, signallerFor } from './signals/signaller'
export { type Going, nextSignal, type Situation, situations } from './signals/situation'
export { backwardStability, backwardStabilityCalculator } from './statics/backward-stability'
export { boomPropsCalculator, type OnProps, onProps } from './statics/boom-props'
export { boomRaising, boomRaisingCalculator } from './statics/boom-raising'
export { elasticReactions, upperReactions } from './statics/elastic'
export { footLift, footLiftCalculator } from './statics/foot-lift'
export { marginOf, prepareFootprint } from './statics/footprint'
export { type ReactionEnvelope, reactionEnvelope, reactionEnvelopeCalculator } from './statics/reaction-envelope'
export { resultantAt, sumSlewing } from './statics/resultant'
export { bendingAt, farSupport_N, runwayBeamCalculator, worstBending } from './statics/runway-beam'
export { type SupportReactions, supportReactions, supportReactionsCalculator } from './statics/support-reactions'
export {
  ratedByRule,
  stabilityRule,
  type TippingLoad,
  tippingAt,
  tippingLoad,
  tippingLoadCalculator,
} from './statics/tipping-load'
export {
  AxisFigures,
  type AxisLimits,
  afterTick,
  axisAt,
  type DrivenAxis,
  into,
  onLever,
  tick_s,
  ticks_per_s,
} from './swing/axis'
export { OverGround } from './swing/ground'
export { gusting } from './swing/gust'
export {
  energyError_J,
  hangingStill,
  keptLoad,
  letGo,
  loadOf,
  Pendulum,
  pull_N,
  type RopeLoad,
  type Swinging,
  swingAngle_deg,
  type Wind,
} from './swing/pendulum'
export { type Catch, catchInOne, greatestCatch_m, quietTravel, type TipSpeed, type Travel } from './swing/reference'
export { swing, swingCalculator, swingPeriod_s, thrownOut_m } from './swing/swing'
export {
  atRest,
  BoomFigures,
  boomTip,
  type Drive,
  driveOf,
  hingedTip,
  type Motion,
  type Moving,
  stillMotion,
} from './swing/tip'
export { type AtWork, type Part, type Space, spacesOf } from './together/spaces'
export { type Meeting, together, type Waiting } from './together/together'
export {
  follow,
  isEnd,
  type SymptomEnd,
  type SymptomFigures,
  type SymptomPath,
  symptomPath,
} from './troubleshooting/path'
export { shownPath, symptomsOf } from './troubleshooting/shown'
export { axleLoads, axleLoadsCalculator } from './truck/axle-loads'
export { axlesOf, balanceOf, forwardOf, type MastPose, marginsOf, type OnForks, type Truck, tractionOf } from './truck/balance'
export { besideRoute, drivenLine, type Routed, snapped, wayAlong, type Xy } from './truck/route'
export { stabilityTriangle, stabilityTriangleCalculator, type TruckStability } from './truck/stability-triangle'
export { tailSwing, tailSwingCalculator } from './truck/tail-swing'
export { type Uncertainty, uncertaintyOf } from './uncertainty/uncertainty'
export type { Judgement } from './wear/judge-change'
export { watchFrom_share, wearKinds, wearRules } from './wear/limits'
export { type Wear, wear, wearCalculator } from './wear/wear'
export { studentT95, type WearTrend, wearTrend, wearTrendCalculator } from './wear/wear-trend'
export { windForce_N } from './wind/air'
export { beaufort, beaufortCalculator } from './wind/beaufort'
export { gustAtHeight_mps, windAtHeightCalculator } from './wind/wind-at-height'
export { windLimit, windLimitCalculator } from './wind/wind-limit'
export { windLoad, windLoadCalculator } from './wind/wind-load'
export { calculatorWords, namesWithWords } from './wording/calculator'
export { notCheckedWords } from './wording/check-words'
export { doNotLift, findingWords } from './wording/finding'
export { changeWords } from './wording/remedy'
export { type Say, sayMetric } from './wording/say'
export { stopWords } from './wording/stop'
export { english, type Language, messageOf, type Plural, pluralMessage, type Shown, shown } from './wording/tell'
export { uncertaintyWords } from './wording/uncertainty'
export { verdictWords } from './wording/verdict'
export { maybeWords, words } from './words'
export { capacityMap, emptyMap, fillMap, type MapInput, prepareMap, useAt } from './working-area/capacity-map'
export { mapOfCase } from './working-area/case-map'
export { capacityMapCalculator } from './working-area/map-calculator'
export { workingAreaZones, type Zone as MapZone, zonesBetween } from './working-area/zones'
