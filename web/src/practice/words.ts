import type { Game, PointLine } from '@geolabe/contract'
import type {
  Above,
  Attempt,
  DriveMarks,
  DriveRule,
  DriveStop,
  Fault,
  LegScore,
  Opinion,
  Plane,
  RuleMark,
  Say,
  SignalFault,
  Stopped,
  TruckEdge,
} from '@geolabe/core'
import { t } from '../language/t'

const planes: Record<Plane, string> = { across: t`Across`, along: t`Along` }

const seconds = (s: number) => Math.abs(s).toFixed(1)
const percent = (share: number) => Math.round(100 * share)

/** What a try at a swing came to: a sentence that says what to do otherwise; letting the tip out after the load is the harder way. */
export const attemptWords = (a: Attempt): string =>
  a.inward === false && !a.caught
    ? t`${catchWords(a)} Follow it in rather than out: that is easier, and the radius gets less.`
    : catchWords(a)

function catchWords(a: Attempt): string {
  const plane = planes[a.plane]
  switch (a.word) {
    case 'caught-in-one':
      return t`${plane}: caught in one.`
    case 'wrong-way':
      return t`${plane}: the wrong way. Move the tip over to where the load tops out.`
    case 'late':
      return t`${plane}: ${seconds(a.late_s)} s late; the load was already coming back.`
    case 'early':
      return t`${plane}: ${seconds(a.late_s)} s early; the load was still going out.`
    case 'overcorrected':
      return t`${plane}: too much, ${percent(a.gain - 1)} % over. Begin later and let go sooner.`
    case 'too-little':
      return t`${plane}: too little, ${percent(1 - a.gain)} % short. Begin sooner and let go later.`
    case 'several-moves':
      return t`${plane}: caught, in ${a.moves} moves. One would do.`
    case 'nearly':
      return t`${plane}: nearly. ${percent(a.left)} % of the swing was left.`
  }
}

export function faultWords(f: Fault, say: Say): string {
  const plane = planes[f.plane]
  switch (f.word) {
    case 'too-fast':
      return t`${plane}: set off too fast; that alone left ${say('length', f.left_m)} of swing.`
    case 'chased':
      return t`${plane}: chased the swing to and fro, and it grew no less.`
    case 'unlevel':
      return t`Out of level by ${say('length', f.left_m)}. Stop the end that is ahead until the other is there.`
  }
}

const stoppedWords: Record<Stopped, string> = {
  'side-pull': t`Stopped: lifted with the hook beside the load. Bring the rope plumb first.`,
  slack: t`Stopped: the rope went slack with the load in the air.`,
  person: t`Stopped: the load hung over somebody, or nearly. Let them over first.`,
  touched: t`Stopped: boom, rope or load touched what stands on the deck.`,
  unlevel: t`Stopped: so far out of level that the load slips in its slings.`,
  'two-block': t`Stopped: the block was hauled up to the head.`,
  'rope-limit': t`Stopped: the load swung out further than a rope may stand.`,
  'too-long': t`Stopped: twenty minutes are over.`,
  'not-valid': t`Stopped: the reckoning came apart. That is our fault, not yours; this run does not count.`,
}
export const stopWords = (s: Stopped): string => stoppedWords[s]

/** How a ring was done: what cost most of it. */
export function legWords(l: LegScore, say: Say): string {
  if (!l.landed) return t`Not landed.`
  if (l.hard) return t`Set down hard.`
  if (l.tilted) return t`One end set down well before the other.`
  if (l.dragged) return t`Dragged over the deck.`
  if (l.land === 0) return t`Outside the ring, ${say('length', l.off_m)} off its middle.`
  return t`In the ring, ${say('length', l.off_m)} off its middle.`
}

interface Told {
  attempts: readonly Attempt[]
  faults: readonly Fault[]
  stopped: Stopped | null
  passed: boolean
}

/** The one sentence after a run: the largest mistake, or what went well. */
export function afterWords(r: Told, say: Say): string {
  if (r.stopped) return stopWords(r.stopped)
  const weight = (a: Attempt) => (a.word === 'caught-in-one' ? 0 : a.left * a.before_m)
  const worst = [...r.attempts].sort((a, b) => weight(b) - weight(a))[0]
  if (worst && weight(worst) > 0) return attemptWords(worst)
  const fault = [...r.faults].sort((a, b) => b.left_m - a.left_m)[0]
  if (fault) return faultWords(fault, say)
  if (worst) return attemptWords(worst)
  return r.passed ? t`Set down where it belonged, with the load kept still.` : t`Not every ring was reached.`
}

/** Which catches they are, within a sentence. */
export const catchesWords = ({ plane, inward }: { plane: Plane | null; inward: boolean | null }): string => {
  if (plane !== 'along') return t`catching across the boom, off the moment by`
  if (inward === null) return t`catching along the boom, off the moment by`
  return inward
    ? t`catching along the boom coming in, off the moment by`
    : t`catching along the boom going out, off the moment by`
}

export const gameWords: Record<Game, string> = {
  load: t`load control`,
  judge: t`judgement`,
  signal: t`hand signals`,
  drive: t`driving`,
  sequence: t`order of work`,
}

/** What may be said of what somebody read or set up. */
export const opinionWords: Record<Opinion, string> = {
  nothing: t`Nothing is wrong`,
  'wrong-sheet': t`From another sheet`,
  'wrong-row': t`From another row`,
  'wrong-column': t`From another column`,
  'between-rows': t`Read between rows`,
  headline: t`The best figure of the sheet`,
  deductions: t`Nothing taken off`,
  'leg-short': t`A leg not out far enough`,
  'over-cover': t`A foot on a cover`,
  'near-edge': t`Too near the trench`,
  'weak-ground': t`Ground too weak`,
  'tail-room': t`No room for the tail`,
  'out-of-level': t`Out of level`,
  'forks-raised': t`Load carried too high`,
  'too-steep': t`Too steep`,
  'across-slope': t`Slopes too much across`,
  'too-narrow': t`Too narrow`,
  'too-low': t`Too low`,
  slippery: t`Too slippery`,
  'turned-fast': t`Too fast for the bend`,
  'sail-left-out': t`The load’s own sail left out`,
  'mean-for-gusts': t`Mean wind taken for gusts`,
  'height-left-out': t`Height of the tip left out`,
  'part-near': t`Near its limit: watch`,
  'part-worn': t`At its limit: stop`,
  'part-cracked': t`Cracked`,
  'part-cut': t`Cut, or wires broken`,
  'part-missing': t`Something missing`,
  'part-bent': t`Bent, slack or bulged`,
}

export const aboveWords: Record<Above, string> = { 'hook-block': t`hook block`, slings: t`slings`, spreader: t`spreader` }

/** What somebody gets wrong, as it is asked again. */
export const pointWords: Record<PointLine['point'], string> = {
  'wrong-way': t`Catching a swing the wrong way`,
  early: t`Catching a swing too early`,
  late: t`Catching a swing too late`,
  overcorrected: t`Catching a swing with too much`,
  'too-little': t`Catching a swing with too little`,
  'several-moves': t`Catching a swing in several moves`,
  nearly: t`Leaving some of a swing`,
  'too-fast': t`Setting off too fast`,
  chased: t`Chasing a swing`,
  unlevel: t`Not keeping two hoists level`,
  'wrong-sheet': t`Not seeing another sheet`,
  'wrong-row': t`Not seeing another row`,
  'wrong-column': t`Not seeing another column`,
  'between-rows': t`Not seeing a figure read between rows`,
  headline: t`Not seeing the best figure of the sheet`,
  deductions: t`Not seeing that nothing was taken off`,
  'leg-short': t`Not seeing a leg that is not out far enough`,
  'over-cover': t`Not seeing a foot on a cover`,
  'near-edge': t`Not seeing a foot too near a trench`,
  'weak-ground': t`Not seeing ground too weak for a foot`,
  'tail-room': t`Not seeing that the tail has no room`,
  'out-of-level': t`Not seeing that it is out of level`,
  'forks-raised': t`Not seeing a load carried too high`,
  'too-steep': t`Not seeing a ramp too steep`,
  'across-slope': t`Not seeing a slope across the way`,
  'too-narrow': t`Not seeing a way too narrow`,
  'too-low': t`Not seeing a way too low`,
  slippery: t`Not seeing a floor too slippery`,
  'turned-fast': t`Not seeing a bend taken too fast`,
  'sail-left-out': t`Not seeing a load’s sail left out`,
  'mean-for-gusts': t`Not seeing mean wind taken for gusts`,
  'height-left-out': t`Not seeing the height of the tip left out`,
  'part-near': t`Not seeing a part near its limit`,
  'part-worn': t`Not seeing a part at its limit`,
  'part-cracked': t`Not seeing a crack`,
  'part-cut': t`Not seeing a cut, or broken wires`,
  'part-missing': t`Not seeing that something is missing`,
  'part-bent': t`Not seeing what is bent, slack or bulged`,
  'wrong-motion': t`Answering a signal with another motion`,
  'no-answer': t`Not answering a signal`,
  slow: t`Answering a signal slowly`,
  'late-stop': t`Stopping late`,
  'wrong-signal': t`Giving another signal than the one that was next`,
  'no-signal': t`Giving no signal where one was wanted`,
  'obeyed-other': t`Obeying somebody who was not agreed`,
  'never-agreed': t`Moving for a signal that nobody agreed`,
  'without-signal': t`Moving without a signal`,
  'false-alarm': t`Finding fault where nothing is wrong`,
  people: t`Coming too close to people on foot`,
  'edge-room': t`Driving too near to tipping`,
  'load-uphill': t`Load downhill, or turning on a ramp`,
  'view-blocked': t`Driving forwards behind a load that hides the way`,
  'corner-horn': t`No horn at a blind corner`,
  'door-horn': t`No horn at a door`,
  'look-back': t`Going backwards without a look`,
  'travel-height': t`Forks too high or dragging on the way`,
  'mast-back': t`Driving with the mast not tilted back`,
  'shift-centred': t`Driving with the side shift off its middle`,
  picking: t`A shelf passed by, or not stood at`,
  leaving: t`Leaving a truck without its brake on and its key out`,
  touched: t`Driving into something`,
  trusted: t`Taking somebody’s word without looking`,
  grave: t`A step out of order that can hurt`,
  refused: t`A step out of order`,
  emergency: t`Not the card first in an emergency`,
  stop: t`Going on when a stop is pressed`,
  lost: t`Going on when something is lost`,
  symptom: t`Going on when the machine does what it should not`,
  unlisted: t`Not standing still when nobody knows what it is`,
  override: t`Reaching for an override`,
}

/** What went wrong with one signal. */
export const signalFaultWords: Record<SignalFault, string> = {
  'wrong-motion': t`another motion than asked for`,
  'no-answer': t`no answer`,
  slow: t`slow`,
  'late-stop': t`stopped too late`,
  'obeyed-other': t`you moved for somebody who was not agreed`,
  'never-agreed': t`you moved for a signal that nobody agreed`,
  'without-signal': t`you moved without a signal`,
  'wrong-signal': t`not the one that was next`,
  'no-signal': t`none given`,
}

/** What was asked of a driver. */
export const ruleWords: Record<DriveRule, string> = {
  people: t`Able to stop for everybody on foot`,
  'edge-room': t`A third of the room to every edge kept`,
  'load-uphill': t`Load uphill on the ramp, and no turning there`,
  'view-blocked': t`Backwards where the load hides the way`,
  'corner-horn': t`Horn before the blind corner`,
  'door-horn': t`Horn before the door`,
  'look-back': t`Eyes back before going backwards`,
  'travel-height': t`Forks just off the ground while moving`,
  'mast-back': t`Mast tilted back while moving`,
  'shift-centred': t`Side shift in its middle while moving`,
  picking: t`Each shelf stood at, and picked from`,
  leaving: t`Left with forks flat, brake on, then key out`,
}

export const markWords: Record<RuleMark, string> = { kept: t`kept`, late: t`only half kept`, missed: t`missed` }

export const driveStopWords: Record<DriveStop, string> = {
  tipped: t`It would have tipped over. Stay in, belt on, hold on, lean away; never jump`,
  struck: t`Somebody on foot would have been hit`,
  touched: t`Truck or load hit something`,
  'too-long': t`Out of time: three times what a steady driver takes`,
}

/** An edge of the triangle that a truck stands on. */
export const edgeWords: Record<TruckEdge, string> = {
  front: t`its front edge`,
  left: t`its left edge`,
  right: t`its right edge`,
}

/** The one sentence after a drive: what ended it, the gravest thing not kept, or what went well. */
export function driveWords({ stopped, rules, passed }: DriveMarks): string {
  if (stopped) return driveStopWords[stopped]
  const worst = rules.find((r) => r.mark === 'missed') ?? rules.find((r) => r.mark === 'late')
  if (worst) return pointWords[worst.rule]
  return passed ? t`Set down in its place, and everything kept on the way` : t`Everything kept, but not where it belonged`
}
