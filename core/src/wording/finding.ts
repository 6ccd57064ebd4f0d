import type { Finding } from '../finding/finding'
import type { CheckName, Said } from '../finding/reasons'
import type { Displayed } from '../parts/display'
import type { StandRole } from '../parts/stand-role'
import { fastestSlew_deg_s } from '../swing/swing'
import { rules, titles } from './check-words'
import type { Say } from './say'
import { english, type Language } from './tell'

export interface FindingWords {
  /** What was looked at. */
  title: string
  /** What was found, in one sentence. */
  what: string
  /** By which rule. */
  rule: string
  /** What to do; empty when there is nothing to do. */
  todo: string
}

/** Figures of one finding as words, and the language it is said in. */
interface Figures extends Language {
  measured: string
  limit: string
  /** Where on the path. */
  at: string
  /** Less than nothing is left of what was measured. */
  gone: boolean
  /** What to do while it is outside. */
  over: string
  say: Say
}
/** What was found, and what to do about it. */
type Sentence = readonly [what: string, todo?: string]
type Worded = { [F in Said as `${F['check']}/${F['reason']}`]: (detail: F['detail'], f: Figures) => Sentence }

const emptyHook = (d: { empty: boolean }) => (d.empty ? ' with the hook empty' : '')
const ground = (d: { ground: string; source: string; empty: boolean }, f: Figures, presumed: string): Sentence => [
  f.t`${f.measured} of ${f.limit}${presumed} on ${d.ground.toLowerCase()}${f.told(emptyHook(d))}. ${d.source}`,
  f.over && (d.empty ? 'A larger mat, or a lighter counterweight.' : 'A larger mat, or less load on this leg.'),
]
const eventWords = {
  pickUp: 'where it is picked up',
  over: 'over what it is carried over',
  setDown: 'where it is set down',
} as const
/** Which of its figures a floor is held to, where not the axle. */
const onFloorWords = { wheel: ', one wheel', total: '' } as const
const round1 = (n: number) => Math.round(n * 10) / 10
const gapWords = { width: 'beside it in all', height: 'above it', aisle: 'in the turn', tips: 'under its fork tips' } as const
const gapTodo = {
  width: 'Take a wider way, or turn the load.',
  height: 'Lower the mast, or another door.',
  aisle: 'A wider aisle, or a smaller truck.',
  tips: 'Forks higher at the foot of the ramp, or load last.',
} as const
const bodyWords = { boom: 'boom', load: 'load', tail: 'tail' } as const
const displayWords: Record<Displayed, string> = {
  configuration: 'table',
  attachment: 'tool',
  boom_m: 'boom length',
  partsOfLine: 'number of parts of line',
  counterweight: 'counterweight',
}
/** Who stands there, as it is said. */
const standing: Record<StandRole, string> = {
  signaller: 'The signaller',
  slinger: 'The slinger',
  'tag-line': 'Whoever holds the tag line',
  spotter: 'The spotter',
}

const behind = (d: { label: string; from_deg: number; to_deg: number }, f: Figures) =>
  f.t`Out of the operator’s sight from ${f.say('angle', d.from_deg)} to ${f.say('angle', d.to_deg)}: behind ${d.label.toLowerCase()}.`
const surfaceWords = { dry: 'a dry floor', wet: 'a wet floor', 'wet-steel': 'wet steel plate', ice: 'ice' } as const
const unanswered = (): Sentence => [
  'Due before this lift, and nothing here checks it.',
  'Have it proved by the maker’s book and a competent person before you lift.',
]

/** One sentence for every reason of every check. A reason without one does not compile. */
const worded: Worded = {
  'mass/unknown': () => [
    'The mass is not known, or nobody said how it is known.',
    'Weigh it, work it out, read the marking, or ask whoever knows the product.',
  ],
  'mass/lifted-unknown': () => [
    'What the arm lifts is not known; the vehicle’s own mass is not that.',
    'Weigh the end that is lifted, or read its axle’s load.',
  ],
  'table/no-table': () => [
    'No rating table for this machine with this counterweight.',
    'Enter the table, or fit a counterweight it is made for.',
  ],
  'table/unknown-configuration': () => [
    'The table has no such setting for this counterweight.',
    'Choose a setting the table has.',
  ],
  'table/legs-short': (d, f) => [
    f.t`“${d.table}” does not cover this set-up: ${d.outriggers} not out as far as it asks.`,
    'Put those legs further out, or choose a setting made for shorter legs.',
  ],
  'rating/outside-sector': (d, f) => [
    f.t`The path leaves the part of the circle that “${d.table}” covers.${d.outriggers ? f.t` “${d.other}” would cover it, but ${d.outriggers} stand too short.` : ''}`,
    'Keep the lift inside the sector, or put the legs further out.',
  ],
  'rating/not-rated': (_d, f) => [
    f.t`Not rated at ${f.at}: the table has nothing here.`,
    'Come closer or change the boom length.',
  ],
  'rating/bend-unknown': (_d, f) => [
    f.t`${f.measured} of ${f.limit}, without the bend under load.`,
    'Measure the radius with it hanging, or give the bend.',
  ],
  'rating/capacity': (_d, f) => [f.t`${f.measured} on the hook of ${f.limit} rated at ${f.at}.`, f.over],
  'selection/not-entered': (d, f) => [
    f.t`Nobody has read off the display which ${f.told(displayWords[d.thing])} it is set to.`,
    'Read it there, and enter it.',
  ],
  'selection/agrees': (d, f) => [f.t`The display shows the right ${f.told(displayWords[d.thing])}.`],
  'selection/differs': (d, f) => [
    f.t`The display shows ${d.reads}, and has to show ${d.is}: its limiter works by the wrong figures.`,
    'Set it right, and read it again.',
  ],
  'hoist-rope/capacity': (d, f) => [
    f.t`${f.measured} on ${d.partsOfLine} parts of line that hold ${f.limit}.`,
    f.over && 'Reeve more parts, or lift less.',
  ],
  'hoist-rope/chain': (d, f) => [f.t`${f.measured} on ${d.falls} falls of chain that hold ${f.limit}.`, f.over && 'Lift less.'],
  'hook/capacity': (d, f) => [f.t`${f.measured} on ${d.block}, marked ${f.limit}.`, f.over && 'Fit a larger block.'],
  'overturning/tipping': (d, f) => [
    f.t`${f.measured} of ${f.limit} that stability allows over ${d.edge} at ${f.at}; it would tip at ${f.say('mass', d.tipping_kg)}.`,
    f.over,
  ],
  'overturning/cannot-tip': () => ['The hook stays inside the footprint; the load alone cannot tip the machine.'],
  'overturning/unstable-unloaded': () => [
    'Without any load the machine would tip over here.',
    'Widen the footprint or keep the boom out of this direction.',
  ],
  'outrigger/capacity': (d, f) => [f.t`At most ${f.measured} of ${f.limit} on this leg${f.told(emptyHook(d))}.`, f.over],
  'rating/plate': (d, f) => [f.t`${f.measured} of ${f.limit} by “${d.table}”.`, f.over && 'Nearer to the face, lower, or less.'],
  'rating/marks': (d, f) => [
    f.t`${f.measured} on the hook; the least mark, of the ${f.told(d.part)}, allows ${f.limit}.`,
    f.over && 'Lift less, or under another beam.',
  ],
  'rating/no-mark': (d, f) => [
    f.t`No mark is read on the ${f.told(d.part)}.`,
    'Read it there; what bears no mark is not lifted with.',
  ],
  'rating/hoist': (d, f) => [
    f.t`${d.label}: ${f.measured} of ${f.limit} by its mark.`,
    f.over && 'Bring the centre nearer the middle, or lift less.',
  ],
  'rating/no-mark-on': (d, f) => [f.t`${d.label}: no mark is on file.`, 'Enter what it is marked with.'],
  'rating/grid': (d, f) => [
    f.t`${f.measured} of ${f.limit} by “${d.table}”, least on the way at ${f.say('length', d.height_m)} up and ${f.say('length', d.reach_m)} out.`,
    f.over && 'Draw the boom in before it is raised or lowered, stand nearer, or put the stabilisers down.',
  ],
  'rating/off-grid': (d, f) => [
    f.t`“${d.table}” rates nothing at ${f.say('length', d.height_m)} up and ${f.say('length', d.reach_m)} out, which is on the way.`,
    'Draw the boom in before it is raised or lowered, or stand nearer.',
  ],
  'rating/stage': (d, f) => [
    f.t`${d.label} carries ${f.measured} of ${f.limit} that it may at ${f.say('length', d.height_m)}, by “${d.table}”.`,
    f.over && 'Raise it less, bring the centre nearer the middle, or lift less.',
  ],
  'share/nothing-on': () => ['Nothing hangs on it.'],
  'share/least': (d, f) => [
    f.t`${d.label} carries ${f.measured} of the load; under ${f.limit} it hangs slack.`,
    f.over && 'Bring the centre nearer the middle.',
  ],
  'rating/not-on-plate': (d, f) => [
    f.t`“${d.table}” rates nothing at this height and load centre.`,
    'Stack lower, or bring its centre nearer.',
  ],
  'rating/nothing-on': () => ['Driven empty: nothing is on it.'],
  'rating/no-row': (d, f) => [
    f.t`The plate has no row for ${d.what} with the mast as it is tilted.`,
    'Upright, or another tool; or a plate from the maker that has it.',
  ],
  'rating/not-measured': (d, f) => [f.t`Not measured: ${f.told(d.what)}.`, 'Measure it.'],
  'rating/battery': (d, f) => [
    f.t`The plate holds for a battery of ${d.what}; this one’s mass is not that, or not known.`,
    'Read it on the battery.',
  ],
  'overturning/frame': (d, f) => [
    f.t`${f.measured} of ${f.limit} left to its ${f.told(d.edge === 'front' ? 'nearer end' : 'nearer side')}, with wind and the fall of the ground.`,
    f.over && 'Wait for less wind, or lift on level ground.',
  ],
  'overturning/by-papers': () => ['It stands by the maker’s papers: nothing here works out whether it would fall over.'],
  'overturning/papers-expired': (d, f) => [
    f.t`The papers of its base held until ${d.until}.`,
    'Have the base examined again; nothing is lifted meanwhile.',
  ],
  'overturning/no-papers': () => [
    'Nothing here works out whether it would fall over, and its papers are not confirmed.',
    'Look at the papers of its set-up and confirm them.',
  ],
  'overturning/forward': (d, f) => [
    f.t`${f.measured} of ${f.limit} that keep it from tipping forwards; it would tip at ${f.say('mass', d.tipping_kg)}.`,
    f.over,
  ],
  'overturning/reserve': (d, f) => [
    f.t`${f.measured} of ${f.limit} left to its ${f.told(d.edge === 'front' ? 'front edge' : 'nearer side')}, with ${round1(d.along_pct)} % along and ${round1(d.across_pct)} % across.`,
    f.over && 'Lower, lighter, or with the carriage in the middle.',
  ],
  'level/stacking-floor': (_d, f) => [
    f.t`The floor slopes ${f.measured}, ${f.limit} allowed for stacking.`,
    f.over && 'Stack on a level floor.',
  ],
  'wind/under-roof': () => ['Under a roof with its doors shut.'],
  'axle/steered': (_d, f) => [
    f.t`${f.measured} of the weight on the steered axle; at least ${f.limit}.`,
    f.over && 'Less load, or nearer to the face.',
  ],
  'way/no-width': (d, f) => [f.t`${d.piece}: how wide it is nobody has measured.`, 'Measure it at its narrowest.'],
  'way/no-load-size': (d, f) => [f.t`${d.piece}: the load’s length, width and height are not entered.`, 'Measure the load.'],
  'way/no-radius': (d, f) => [
    f.t`${d.piece}: how tight the turn is nobody has said.`,
    'Measure its radius, to the middle of the truck.',
  ],
  'way/no-axle': (d, f) => [
    f.t`${d.piece}: how far the axle on the road follows behind is not measured, and how wide it swings comes from that.`,
    'Measure from where it is lifted to the axle on the road.',
  ],
  'way/nose': (d, f) => [
    f.t`${d.piece}: what holds the trailer’s nose nobody has said; uncoupled it tips as a truck drives in.`,
    'Leave it coupled to its tractor, or put stands under its nose.',
  ],
  'way/gap': (d, f) => [
    f.gone
      ? f.t`${d.piece}: nothing left ${f.told(gapWords[d.what])}, at least ${f.limit}.`
      : f.t`${d.piece}: ${f.measured} left ${f.told(gapWords[d.what])}, at least ${f.limit}.`,
    f.over && gapTodo[d.what],
  ],
  'way/slope': (d, f) => [
    f.t`${d.piece}: ${f.told(d.what)} of ${f.measured}, the machine’s own limit is ${f.limit}.`,
    f.over && 'Take another way.',
  ],
  'way/through': (d, f) => [f.t`The way goes through ${d.label.toLowerCase()}.`, 'Draw it round, or by a door.'],
  'way/touches': (d, f) => [f.t`What is driven there would touch ${d.label.toLowerCase()}.`, 'Draw the way further off.'],
  'way/beside': (d, f) => [
    f.t`${f.measured} left beside ${d.label.toLowerCase()}, at least ${f.limit}.`,
    f.over && 'Draw the way further off.',
  ],
  'way/too-tight': (d, f) => [
    f.t`${d.piece}: what is towed cannot follow round so tight a turn.`,
    'Take a wider turn, or lift its other end.',
  ],
  'travel/raised': (d, f) => [f.t`The load is carried higher than ${f.say('length', d.most_m)}.`, 'Lower it before you drive.'],
  'travel/no-speed': (d, f) => [
    f.t`${d.piece}: how fast it is driven is not said; at most ${f.limit}.`,
    'Say how fast, or drive under that.',
  ],
  'travel/margin': (d, f) => [
    f.t`${d.piece}: ${f.measured} of ${f.limit} left to its ${f.told(d.edge === 'front' ? 'front edge' : 'outer side')}${d.permitted_mps === null ? '' : f.t`; at most ${f.say('speed', d.permitted_mps)} in this turn`}.`,
    f.over && 'Load uphill, slower, or less of it.',
  ],
  'traction/friction': (d, f) => [
    f.t`${d.piece}: its braked wheels need a grip of ${f.measured}; ${f.told(surfaceWords[d.surface])} gives ${f.limit}.`,
    f.over && 'The other way round, gentler braking, sand, or another way.',
  ],
  'traction/towed-unknown': (d, f) => [
    f.t`${d.piece}: what the vehicle behind weighs is not known, and these brakes hold it too.`,
    'Find out its mass.',
  ],
  'grip/faces-unknown': () => ['Whether the faces are dry or wet nobody has said.', 'Look at them; wipe them dry.'],
  'grip/friction': (d, f) => [
    f.t`${f.measured} between ${d.faces === 'dry' ? f.t`dry` : f.t`wet`} faces that hold ${f.limit}.`,
    f.over && 'Dry the faces, or another tool.',
  ],
  'guard/no-figure': () => [
    'How high its load guard stands over the forks the machine’s file does not say.',
    'Measure it, or wrap the tiers.',
  ],
  'guard/height': (d, f) => [
    f.t`${f.measured} to the middle of the topmost of ${d.tiers} loose tiers; the guard stands ${f.limit} over the forks.`,
    f.over && 'Fewer tiers, or wrap them.',
  ],
  'aloft/not-weighed': () => ['Who rides up is not weighed.', 'Enter each person with what they wear and carry.'],
  'aloft/too-many': (d, f) => [f.t`${d.persons} on a platform made for ${d.most}.`, 'One at a time.'],
  'aloft/persons': (d, f) => [f.t`${d.persons} on a platform made for ${d.most}.`],
  'motion/does-not-turn': (d, f) => [
    f.t`${d.label}: the boom is not turned outside ${f.say('angle', d.from_deg)} to ${f.say('angle', d.to_deg)}.`,
    'Keep the lift inside that, or stand another way.',
  ],
  'motion/other-boom': (d, f) => [
    f.t`${d.label}: not with ${f.say('length', d.boom_m)} of boom.`,
    'Use a boom it is made for, or stand another way.',
  ],
  'motion/made-otherwise': (d, f) => [f.t`${d.label}: that is another machine for this.`, 'Set it up for what is to be done.'],
  'motion/ballast-stands': () => [
    'Boom and load do not lift the suspended ballast: it stands on the ground, counts for nothing, and nothing turns.',
    'Lift without it by its own table, or further out.',
  ],
  'motion/ballast-hangs': () => ['Boom and load hold the suspended ballast clear of the ground, the lightest load too.'],
  'motion/one-at-a-time': () => ['Nothing is hoisted by two hoists at once here.'],
  'motion/sync-unread': () => [
    'Whether both hoists are aligned is not read off the panel.',
    'Read it before both lift together.',
  ],
  'motion/aligned': () => ['The panel shows both hoists aligned.'],
  'motion/not-aligned': () => [
    'Both hoists lift together only when the panel shows them aligned.',
    'Equalise them with everybody clear, then read it again.',
  ],
  'motion/up-and-down': (d, f) => [
    f.t`${d.label}: only straight up and down.`,
    'Set down where it was taken up, or stand another way.',
  ],
  'motion/allowed': (d, f) => [f.t`${d.label}: this lift is made in it.`],
  'axle/rating': (d, f) => [
    f.t`${f.measured} on the ${d.label}${d.empty ? f.t` with nothing lifted` : ''}, which may carry ${f.limit}.`,
    f.over,
  ],
  'axle/front-left': (_d, f) => [
    f.t`${f.measured} of its own load stays on the front axle; at least ${f.limit}.`,
    f.over && 'Lift less, or a shorter arm.',
  ],
  'wheel/not-looked-at': () => ['Nobody has confirmed the tyres and their pressures.', 'Look at them and read the pressures.'],
  'wheel/no-figure': (d, f) => [f.t`The machine’s data do not say what the tyres of the ${d.label} carry.`, 'Ask the maker.'],
  'wheel/rating': (d, f) => [
    f.t`${f.measured} on each tyre of the ${d.label}${f.told(emptyHook(d))}, which may carry ${f.limit}.`,
    f.over,
  ],
  'floor/unknown': () => ['What it stands on is not named.', 'Name the floor or deck under its wheels.'],
  'floor/no-figure': (d, f) => [
    f.t`${d.floor}: no figure for axles and wheels.`,
    'Get both from the engineer of the deck or floor, or stand somewhere else.',
  ],
  'floor/axle': (d, f) => [
    f.t`${f.measured} under the ${d.label} on ${d.floor.toLowerCase()}, which takes ${f.limit}. ${d.source}`,
    f.over,
  ],
  'floor/total': (d, f) => [
    f.t`${f.measured} in all on ${d.floor.toLowerCase()}, which takes ${f.limit}. ${d.source}`,
    f.over && 'A lighter truck, or less load.',
  ],
  'floor/wheel': (d, f) => [
    f.t`${f.measured} under a wheel of the ${d.label} with its factor, on ${d.floor.toLowerCase()}, which takes ${f.limit}. ${d.source}`,
    f.over,
  ],
  'evidence/not-confirmed': (d, f) => [f.t`Not confirmed: ${d.open.join('; ')}.`, 'Look at each, then confirm it in the set-up.'],
  'evidence/confirmed': () => ['Everything that this way of standing needs is confirmed.'],
  'ground/allowable': (d, f) => ground(d, f, ''),
  'ground/presumed': (d, f) => ground(d, f, ' (presumed)'),
  'ground/nothing-presumed': (d, f) => [
    f.t`${f.measured}${f.told(emptyHook(d))} on ${d.ground.toLowerCase()}: nothing may be presumed for it.`,
    'Get a figure from an engineer or a test, or stand somewhere else.',
  ],
  'ground/mats-near': (d, f) => [
    f.t`${d.label} and ${d.other.toLowerCase()}: ${f.measured} of clear ground between what they press on; under ${f.limit} it adds up.`,
    'Lay the mats across each other’s line, or put one outrigger further out.',
  ],
  'ground/mats-overlap': (d, f) => [
    f.t`The mats of ${d.label.toLowerCase()} and ${d.other.toLowerCase()} cannot both lie flat: they overlap.`,
    'Take smaller mats, or put one outrigger further out.',
  ],
  'ground/unknown': () => ['Nobody has said what this leg stands on.', 'Choose the ground under this leg.'],
  'wind/no-limit': () => ['The table in use states no wind limit.', 'Ask for the maker’s figure.'],
  'wind/no-sail': () => ['The load’s sail area is not known.', 'Give its largest side, height × width.'],
  'wind/no-mass': () => ['Without a known mass the wind limit cannot be worked out.', 'Find out the mass.'],
  'wind/unread': (_d, f) => [f.t`No wind reading; up to ${f.limit} for this load.`, 'Read the gauge.'],
  'wind/speed': (_d, f) => [f.t`${f.measured} of ${f.limit} for this load’s sail.`, f.over && 'Wait for the wind to fall.'],
  'level/unread': () => ['The level has not been read both ways.', 'Read the level along and across.'],
  'level/no-limit': () => ['No table in use says how much tilt it allows.', 'Choose a set-up that a table covers.'],
  'level/bubble-unproved': (_d, f) => [
    f.t`${f.measured} out of level by a bubble that nobody has proved.`,
    'Turn a loose level end for end and compare.',
  ],
  'level/fall-unread': () => ['How far it falls is not read along and across.', 'Read it both ways with a level.'],
  'level/fall': (d, f) => [
    f.t`It falls ${f.measured} ${f.told(d.way)}; ${f.limit} is allowed.`,
    f.over && 'Pack it level and read it again.',
  ],
  'level/tilt': (_d, f) => [f.t`${f.measured} out of level; the table allows ${f.limit}.`, f.over && 'Level again.'],
  'boom-limits/too-steep': (d, f) => [
    f.t`Too close for ${f.say('length', d.boom_m)} of boom: it cannot be raised past ${f.say('angle', d.angle_deg)}.`,
    'Shorten the boom or move out.',
  ],
  'boom-limits/too-flat': (d, f) => [
    f.t`Too far for ${f.say('length', d.boom_m)} of boom: it may not be lowered past ${f.say('angle', d.angle_deg)}.`,
    'Lengthen the boom or come closer.',
  ],
  'boom-limits/out-of-reach': (d, f) => [
    f.t`${f.say('length', d.boom_m)} of boom does not reach this radius.`,
    'Lengthen the boom or come closer.',
  ],
  'backward/behind': (_d, f) => [
    f.t`Hook empty, boom as high as it goes, its weight stands ${f.measured} of the way to the edge behind it; ${f.limit} is allowed.`,
    f.over && 'Less counterweight, or a longer boom; never this one unladen.',
  ],
  'backward/falls-back': (_d, f) => [
    f.t`With the hook empty and the boom up the machine would fall over backwards at ${f.at}.`,
    'Fit less counterweight, or put the legs further out.',
  ],
  'backward/under-boom': (_d, f) => [
    f.t`${f.measured} of the weight stays on the side under the boom with the hook empty at ${f.at}; ${f.limit} has to.`,
    f.over && 'Fit less counterweight, or put the legs further out.',
  ],
  'edge/none-near': () => ['No edge drawn near any foot.'],
  'edge/over-void': (d, f) => [
    f.t`This foot would stand over ${d.edge.toLowerCase()}.`,
    'Stand somewhere else, or draw that beam in.',
  ],
  'edge/ask-engineer': (d, f) => [
    f.t`This foot stands within two depths of ${d.edge.toLowerCase()}, where no rule of thumb holds.`,
    'Get an engineer’s figure for this edge, or stand further off.',
  ],
  'edge/engineer': (d, f) => [
    f.t`${f.measured} from the foot to ${d.edge.toLowerCase()}; ${f.limit} it has to be. ${d.source}`,
    f.over && 'Stand further off, or take a smaller mat where the ground allows it.',
  ],
  'edge/setback': (d, f) => [
    f.t`${f.measured} from the foot to ${d.edge.toLowerCase()}; ${f.limit} it has to be.`,
    f.over && 'Stand further off.',
  ],
  'clearance/nothing-near': () => ['Nothing solid is drawn within reach of boom, load or tail.'],
  'clearance/no-boom-size': (d, f) => [
    f.t`${d.label} stands within reach, and the machine’s file does not say how thick the boom is.`,
    'Enter half the boom’s greatest width in the machine’s file.',
  ],
  'clearance/no-load-size': (d, f) => [
    f.t`${d.label} stands within reach, and the load’s size is not entered.`,
    'Measure the load: length, width, height.',
  ],
  'clearance/no-heights': (d, f) => [
    f.t`The load would pass over or against ${d.label.toLowerCase()}, and the heights are not entered.`,
    'Say what it is carried over, or turn the other way.',
  ],
  'clearance/too-many': () => [
    'More corners are drawn within reach than can be looked at.',
    'Draw the place with fewer of them, or leave out what does not matter.',
  ],
  'clearance/gap': (d, f) => [
    f.t`${f.measured} at least between the ${f.told(bodyWords[d.body])} and ${d.label.toLowerCase()}; ${f.limit} it has to be.`,
    f.over && 'Turn the other way, or set down elsewhere.',
  ],
  'people/none-drawn': () => ['No place where people walk is drawn here. Look before you lift, and keep them out.'],
  'people/clear': (d, f) => [f.t`The load passes ${f.measured} at least from ${d.label.toLowerCase()}.`],
  'people/closed': (d, f) => [f.t`${d.label} is closed while the load is up.`],
  'people/over': (d, f) => [
    f.t`The load would pass over ${d.label.toLowerCase()}.`,
    'Close it while the load is up, or go another way.',
  ],
  'people/stands-clear': (d, f) => [f.t`${f.told(standing[d.role])} stands ${f.measured} clear of load and machine.`],
  'people/stands-under': (d, f) => [
    f.t`${f.told(standing[d.role])} stands where the load comes, ${f.measured} from it; ${f.limit} is the least.`,
    'Stand further off, or to the side.',
  ],
  'people/stands-by-tail': (d, f) => [
    f.t`${f.told(standing[d.role])} stands where the tail comes round, ${f.measured} from it; ${f.limit} is the least.`,
    'Stand outside its circle.',
  ],
  'people/stands-inside-barriers': (d, f) => [
    f.t`${f.told(standing[d.role])} stands ${f.measured} from towers and load; the barriers are ${f.limit} off.`,
    'Stay outside the barriers while anything hangs.',
  ],
  'people/stands-outside-barriers': (d, f) => [
    f.t`${f.told(standing[d.role])} stands ${f.measured} from towers and load, outside the barriers.`,
  ],
  'people/stands-in-line': (d, f) => [
    f.t`${f.told(standing[d.role])} stands ${f.measured} from the line of the rope, which flies back if it parts; ${f.limit} is the least.`,
    'Stand off to the side, not in line with boom and rope.',
  ],
  'people/stands-off-line': (d, f) => [f.t`${f.told(standing[d.role])} stands ${f.measured} off the line of the rope.`],
  'people/stands-by-wheel': (d, f) => [
    f.t`${f.told(standing[d.role])} stands where a wheel rolls, ${f.measured} from it; ${f.limit} is the least.`,
    'Walk beside it, not before or behind its wheels.',
  ],
  'people/stands-unseen': (d, f) => [
    f.t`${f.told(standing[d.role])} cannot be seen from the cab past the load.`,
    'Stand where the cab sees you, or speak by radio.',
  ],
  'people/stands-unsized': (d, f) => [
    f.t`${f.told(standing[d.role])} stands within the load’s reach, and its size is not entered.`,
    'Measure the load: length, width, height.',
  ],
  'people/past': (d, f) => [f.t`The way passes ${f.measured} from ${d.label.toLowerCase()}.`],
  'people/across': (d, f) => [
    f.t`The way goes over ${d.label.toLowerCase()}, where people walk.`,
    'Close it while you drive, or go another way.',
  ],
  'sight/seen': () => ['Nothing drawn here stands between the operator and the load.'],
  'sight/covered': (d, f) => [
    f.t`Hidden behind ${d.label.toLowerCase()} from ${f.say('angle', d.from_deg)} to ${f.say('angle', d.to_deg)}; watched there: ${d.by}.`,
  ],
  'sight/blind': (d, f) => [behind(d, f), 'Name a signaller there, or stand where the load is seen.'],
  'sight/no-camera': (d, f) => [behind(d, f), 'This machine has no camera on its boom. Name who signals there.'],
  'sight/no-signaller': (d, f) => [behind(d, f), 'Say who signals there, by name.'],
  'sight/no-signals': (d, f) => [behind(d, f), 'Agree the signals before the load is up.'],
  'sight/signaller-blind': (d, f) => [
    f.t`The signaller does not see it either behind ${d.label.toLowerCase()}, from ${f.say('angle', d.from_deg)} to ${f.say('angle', d.to_deg)}.`,
    'Stand where the load is seen there, or name another.',
  ],
  'sight/signaller-unseen': (d, f) => [
    f.t`${d.label} stands between the operator and the signaller.`,
    'Stand where the operator sees the hands, or signal by radio.',
  ],
  'sight/beyond-remote': (d, f) => [
    f.t`Place ${d.post} of the operator is ${f.measured} off; the remote works to ${f.limit}.`,
    'Stand nearer, or have a signaller there.',
  ],
  'sight/no-load-size': (d, f) => [
    f.t`${d.label} may hide the load, and its size is not entered.`,
    'Measure the load: length, width, height.',
  ],
  'people/no-load-size': (d, f) => [
    f.t`${d.label} is within reach, and the load’s size is not entered.`,
    'Measure the load: length, width, height.',
  ],
  'overhead-line/none-drawn': () => ['No overhead line is drawn on the plan of this place. Look up before you lift.'],
  'overhead-line/no-height': (d, f) => [
    f.t`The height of ${d.label} is not known.`,
    'Ask the utility; stay out of its strip meanwhile.',
  ],
  'overhead-line/no-movement': (d, f) => [
    f.t`How far the wires of ${d.label} sag and blow out is not known.`,
    'Ask the utility; stay out of its strip meanwhile.',
  ],
  'overhead-line/no-figure': (d, f) => [
    f.t`${d.label} is above 1,000 kV: only the utility’s own figure counts.`,
    'Ask the utility.',
  ],
  'overhead-line/no-size': (d, f) => [
    f.t`${d.label} is near enough to matter, and the size of the load or of the boom is not known.`,
    'Measure the load: length, width, height.',
  ],
  'overhead-line/distance': (d, f) => [
    f.t`${f.measured} at least to ${d.label}, sag and blow-out taken off; ${d.voltage_kV === null ? f.t`with the voltage not known ` : ''}${f.limit} it has to be.`,
    f.over && 'Dead and earthed, in writing from the utility, or lift elsewhere.',
  ],
  'hook-height/no-heights': () => ['Not all heights are entered.', 'Enter all three.'],
  'hook-height/no-block': () => [
    'The machine’s file does not say how far the hook hangs below the head when the hook stop works.',
    'Measure it with the block drawn up, and enter it.',
  ],
  'hook-height/no-size': () => ['Height of load and rigging not entered.', 'Measure from hook to underside.'],
  'hook-height/room': (d, f) => [
    f.t`${f.measured} of room ${f.told(eventWords[d.event])}, block drawn up to its stop; ${f.limit} it has to be.`,
    f.over && 'Use more boom, come closer, or shorter slings where their angle allows it.',
  ],
  'two-block/no-block': () => [
    'The boom is drawn out under load, and the machine’s file does not say where its hook stop works.',
    'Measure it with the block drawn up, and enter it.',
  ],
  'two-block/no-heights': () => [
    'The boom is drawn out under load, and the heights are not all given.',
    'Give the heights, the load’s size and the rigging’s.',
  ],
  'two-block/gap': (d, f) => [
    f.t`Drawing out ${f.say('length', d.out_m)} without paying out leaves ${f.measured} between head and hook; the hook stop works at ${f.limit}.`,
    f.over && 'Pay out rope before and while the boom is drawn out.',
  ],
  'two-block/stalls': (d, f) => [
    f.t`Drawing out ${f.say('length', d.out_m)} without paying out leaves ${f.measured} between head and hook: the hoist stalls at ${f.limit}, as it is made to.`,
    'Pay out rope before and while the boom is drawn out.',
  ],
  'structure/pendants': (d, f) => [
    f.t`Raising ${f.say('length', d.boom_m)} of boom pulls its pendants with ${f.measured} of ${f.limit}, most at ${f.say('angle', d.at_deg)}.`,
    f.over && 'Raise it with the derrick mast, or with an assisting crane.',
  ],
  'structure/raising-front': (d, f) => [
    f.t`${f.measured} left to its front edge while ${f.say('length', d.boom_m)} of boom is raised; ${f.limit} are kept.`,
    f.over && 'Raise it with the derrick mast, or with an assisting crane.',
  ],
  'structure/other-boom': (_d, f) => [
    f.t`The boom was built to ${f.limit}; this lift counts with ${f.measured}.`,
    'Prove the lift with the boom as it stands, or set up anew.',
  ],
  'structure/header': (d, f) => [
    f.t`${d.label} carries ${f.measured} of ${f.limit} by its mark, with the jerk of lifting.`,
    f.over && 'Bring the centre nearer the middle, or lift less.',
  ],
  'structure/pressure': (d, f) => [
    f.t`${d.label} is pressed to ${f.measured} of ${f.limit}, with the jerk of lifting.`,
    f.over && 'Raise it less, or lift less.',
  ],
  'structure/sideways': (_d, f) => [
    f.t`Wind, fall of the track and stopping push it sideways with ${f.measured} of ${f.limit}.`,
    f.over && 'Level the track, wait for less wind, stop gently.',
  ],
  'structure/bending': (d, f) => [
    f.t`${d.label}: ${round1(d.stress_MPa)} of ${round1(d.allowable_MPa)} MPa in bending, ${f.say('length', d.section_m)} along it with the load at ${f.say('length', d.at_m)}.`,
    f.over && 'Lift less, or nearer to a support.',
  ],
  'structure/trolley': (d, f) => [
    f.t`${f.measured} on ${d.wheels} trolley wheels that carry ${f.limit}.`,
    f.over && 'Lift less.',
  ],
  'structure/held-down': (_d, f) => [
    f.t`The overhanging load pulls the further support up with ${f.measured}; its bolts are confirmed.`,
  ],
  'structure/pulled-up': (_d, f) => [
    f.t`The overhanging load pulls the further support up with ${f.measured}, and nobody has confirmed its bolts.`,
    'Have the bolts looked at, or stay between the supports.',
  ],
  'structure/no-hull': () => [
    'How broad the hull is in its slings, or how far they rise, is not entered.',
    'Measure both where the slings lie.',
  ],
  'structure/no-lengths': () => [
    'The length of the slings or the spread of the lift points is not entered.',
    'Measure a leg, and between the lift points.',
  ],
  'structure/sling-flat': () => [
    'With this length and spread the slings hang flatter than 60° from plumb, or do not meet.',
    'Use longer slings or a spreader.',
  ],
  'structure/no-mark': (d, f) => [
    f.t`What the sling’s tag says is not entered; a leg hangs ${f.say('angle', d.angle_deg)} from plumb.`,
    'Read the tag. A sling without one is not used.',
  ],
  'structure/foot-bears': () => ['The boom’s foot still presses on the frame.'],
  'structure/foot-pull': (_d, f) => [
    f.t`On its props the boom pulls its foot up with ${f.measured}; it may with ${f.limit}.`,
    f.over && 'Less load, or nearer to the props.',
  ],
  'structure/arm': (d, f) => [
    f.t`${f.measured} on the arm, ${f.say('length', d.out_m)} behind the rear axle, where it may lift ${f.limit}.`,
    f.over && 'A shorter arm, the lighter end first, or a dolly.',
  ],
  'structure/sling': (d, f) => [
    f.plural(
      d.legs,
      {
        one: '{1} in the one leg, {2} from plumb, of {3}.',
        other: '{1} in the hardest pulled of # legs, {2} from plumb, of {3}.',
      },
      f.measured,
      f.say('angle', d.angle_deg),
      f.limit,
    ),
    f.over && 'Use stronger or longer slings.',
  ],
  'swing/no-slew': () => ['Nothing is turned.'],
  'swing/rate': (d, f) => [
    d.rate_deg_s >= fastestSlew_deg_s
      ? f.t`Start and stop over ${d.quiet_s.toFixed(1)} s, one swing of this rope. No crane turns fast enough to throw the load out further than the table rates it.`
      : f.t`Start and stop over ${d.quiet_s.toFixed(1)} s, one swing of this rope. Turned faster than ${f.say('angle', d.rate_deg_s)} a second the load stands ${f.say('length', d.out_m)} out, further than the table rates it.`,
  ],
  'swing/no-room': (d, f) => [
    f.t`The radius is at the end of its row: any swing takes the load beyond what the table rates. Start and stop over ${d.quiet_s.toFixed(1)} s, at a crawl.`,
    'Work a little closer in, so that a swing stays inside the row.',
  ],
  'edge/nothing-checks-this': unanswered,
  'clearance/nothing-checks-this': unanswered,
  'overhead-line/nothing-checks-this': unanswered,
  'hook-height/nothing-checks-this': unanswered,
  'two-block/nothing-checks-this': unanswered,
  'structure/nothing-checks-this': unanswered,
  'swing/nothing-checks-this': unanswered,
  'people/nothing-checks-this': unanswered,
  'backward/nothing-checks-this': unanswered,
  'motion/nothing-checks-this': unanswered,
  'way/nothing-checks-this': unanswered,
  'grip/nothing-checks-this': unanswered,
  'guard/nothing-checks-this': unanswered,
  'aloft/nothing-checks-this': unanswered,
  'travel/nothing-checks-this': unanswered,
  'traction/nothing-checks-this': unanswered,
  'axle/nothing-checks-this': unanswered,
  'wheel/nothing-checks-this': unanswered,
  'floor/nothing-checks-this': unanswered,
  'evidence/nothing-checks-this': unanswered,
  'selection/nothing-checks-this': unanswered,
  'sight/nothing-checks-this': unanswered,
  'mass/nothing-checks-this': unanswered,
  'table/nothing-checks-this': unanswered,
  'share/nothing-checks-this': unanswered,
  'rating/nothing-checks-this': unanswered,
  'hoist-rope/nothing-checks-this': unanswered,
  'hook/nothing-checks-this': unanswered,
  'boom-limits/nothing-checks-this': unanswered,
  'level/nothing-checks-this': unanswered,
  'wind/nothing-checks-this': unanswered,
  'overturning/nothing-checks-this': unanswered,
  'outrigger/nothing-checks-this': unanswered,
  'ground/nothing-checks-this': unanswered,
}

/** By which rule it is judged. */
function ruleOf(f: Finding, { told }: Language): string {
  const rule = told(rules[f.check])
  if (f.check !== 'rating' || !('rule' in f.detail)) return rule
  return `${rule} ${told(f.detail.rule === 'linear' ? 'Read by the straight line.' : 'Read by the worse row.')}`
}

/** What is said of something outside that names no remedy of its own. */
export const doNotLift = 'Do not lift. Change what is named below.'

/** A finding in words. Findings are data; this is the only place that words them. */
export function findingWords(f: Finding, say: Say, language: Language = english): FindingWords {
  const { t, told } = language
  const figure = (v: number | null) => (f.quantity === null || v === null ? '' : say(f.quantity, v))
  // The compiler holds each sentence against the detail of its own reason above; which of them it is, only the data knows.
  const sentence = worded[`${f.check}/${f.reason}` as keyof Worded] as (detail: Finding['detail'], f: Figures) => Sentence
  const [what, todo = ''] = sentence(f.detail, {
    ...language,
    measured: figure(f.measured),
    gone: f.measured !== null && f.measured < 0,
    limit: figure(f.limit),
    at: f.at ? t`${say('length', f.at.radius_m)}, slew ${say('angle', f.at.slew_deg)}` : '',
    over: f.verdict === 'outside' ? doNotLift : '',
    say,
  })
  const label =
    'label' in f.detail
      ? f.detail.label
      : 'piece' in f.detail
        ? f.detail.piece
        : 'role' in f.detail
          ? told(standing[f.detail.role]).toLowerCase()
          : f.subject
  const wheel = f.check === 'floor' && f.reason in onFloorWords ? onFloorWords[f.reason as keyof typeof onFloorWords] : ''
  const title = told(titles[f.check])
  return {
    title: f.subject ? `${title} · ${label}${told(wheel)}` : title,
    what: `${told(what)}${uncertainty(f, say, language)}`,
    rule: ruleOf(f, language),
    todo: told(todo),
  }
}

/** What is measured or estimated is judged at its worse end; where that makes a difference it is said. */
const doubted = new Set<CheckName>(['rating', 'hoist-rope', 'hook', 'overturning', 'wind', 'level'])
function uncertainty(f: Finding, say: Say, { t }: Language): string {
  if (!doubted.has(f.check) || f.quantity === null || f.measured === null || f.nominal === null) return ''
  if (Math.abs(f.measured - f.nominal) <= 0.002 * Math.abs(f.measured)) return ''
  return t` Worse end of its ±; as given ${say(f.quantity, f.nominal)}.`
}
