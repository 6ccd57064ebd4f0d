import type { Calculator } from '../calculator/define'

interface CalculatorWords {
  /** Its name in the trade’s words. */
  title: string
  /** Other words that it is looked for by. */
  also: string
}

const words: Readonly<Record<string, CalculatorWords>> = {
  wear: { title: 'Wear of a part', also: 'fork heel hook throat rope chain tread' },
  'wear-trend': { title: 'When a part reaches its limit', also: 'trend readings due date' },
  'line-approach': { title: 'Distance to an overhead line', also: 'power line voltage electricity' },
  'edge-setback': { title: 'Pad beside an edge', also: 'excavation trench slope setback' },
  'ground-pressure': { title: 'Mat under a leg', also: 'pad bearing outrigger spreader ground' },
  'track-pressure': { title: 'Pressure under tracks', also: 'crawler ground bearing' },
  clearance: { title: 'Room along the path', also: 'collision obstacle swing wall clearance' },
  'boom-limits': { title: 'Limits under a ceiling', also: 'height angle reach limit ceiling wall indoors working range' },
  'bubble-check': { title: 'Check the spirit level', also: 'level spirit reversal' },
  levelling: { title: 'Bring it level', also: 'jacks outriggers packing stroke' },
  'level-effect': { title: 'What out of level does', also: 'tilt side load radius' },
  'alternating-lower': { title: 'Let it down side by side', also: 'lower legs outriggers in turn alternating jack down' },
  'section-slide': { title: 'Section that could slide', also: 'pinned boom section friction level draw out by hand' },
  'support-reactions': { title: 'What each leg carries', also: 'outrigger reaction load stability margin' },
  'reaction-envelope': { title: 'Legs while slewing', also: 'outrigger envelope greatest least' },
  'tipping-load': { title: 'Load that would tip it', also: 'stability overturning margin' },
  'backward-stability': { title: 'Falling backwards', also: 'counterweight rear stability wind' },
  'boom-raising': { title: 'Raise a lattice boom', also: 'pendant mast derrick counterweight' },
  'foot-lift': { title: 'Lift a boom’s foot', also: 'lattice boom assembly hinge pins mast' },
  'load-mass': { title: 'Load builder', also: 'weight mass centre of gravity sail volume density' },
  'ends-weight': { title: 'Weigh it end by end', also: 'trial pick two picks unknown mass centre of gravity' },
  'supports-weight': { title: 'Weigh it by what carries it', also: 'axle weighbridge scale tower pressure jack unknown mass' },
  'sling-tension': { title: 'Slings', also: 'chain rope angle shackle rigging choker' },
  'load-sharing': { title: 'Two hooks, or several', also: 'tandem towers hoists share gantry pressure' },
  'sync-tilt': { title: 'Two hoists not level', also: 'synchronised aligned tandem straddle gantry tilt share' },
  'hydraulic-force': { title: 'Force of a cylinder', also: 'hydraulic pressure jack relief' },
  'winch-pull': { title: 'Pull up a slope', also: 'winch recovery snatch block' },
  recovery: { title: 'What stays on the front axle', also: 'tow wheel-lift steering recovery' },
  'telescopic-geometry': { title: 'Radius and tip height', also: 'boom angle jib height geometry' },
  'articulated-geometry': { title: 'Folding boom: tip and angles', also: 'knuckle articulated elbow' },
  'unfold-clearance': { title: 'Unfold over what lies under it', also: 'folding knuckle boom bed headboard cargo inner angle' },
  'hook-travel': { title: 'Block and boom head', also: 'two-block anti hook limit telescope line' },
  'chart-reading': { title: 'Read a rating table', also: 'chart capacity radius boom deduction line limit' },
  'support-choice': { title: 'Which way of standing', also: 'support wheels braces props outriggers state choose' },
  'stage-rating': { title: 'Pinned section', also: 'pin position hand-drawn trailer crane' },
  'articulated-rating': { title: 'Folding boom: the whole path', also: 'knuckle unfolding path rating' },
  'counterweight-rating': { title: 'Sliding counterweight', also: 'slabs extension heavy forklift' },
  'height-rating': { title: 'Gantry towers by height', also: 'hydraulic gantry stage tower' },
  'hoist-chain-rating': { title: 'Chain hoist on a runway', also: 'chain hoist trolley beam marks' },
  'capacity-map': { title: 'Where this load can go', also: 'map round machine capacity' },
  'table-check': { title: 'A table against physics', also: 'check mistyped rows decimal' },
  'truck-rating': { title: 'Forklift plate', also: 'capacity load centre mast attachment' },
  'runway-beam': { title: 'Runway beam', also: 'hoist beam bending overhang trolley support uplift' },
  'boom-props': { title: 'A boom on props', also: 'props under boom recovery crane lever foot pull' },
  'axle-loads': { title: 'Axles and floor', also: 'floor wheel load plate pressure' },
  'stability-triangle': { title: 'Forklift stability triangle', also: 'tip over slope turn speed braking' },
  'tail-swing': { title: 'Tail swing and aisle', also: 'turning circle aisle width rear steer' },
  beaufort: { title: 'Beaufort and wind speed', also: 'wind force scale gale breeze' },
  'wind-at-height': { title: 'Gust at the boom tip', also: 'wind height forecast gauge' },
  'wind-limit': { title: 'Wind this load may be lifted in', also: 'sail area wind limit' },
  'wind-load': { title: 'What wind does to a load', also: 'wind force drift moment' },
  swing: { title: 'Swing of a load', also: 'pendulum period slew ramp' },
}

/** What a calculator is called, and what else it is looked for by. */
export const calculatorWords = ({ name }: Calculator): CalculatorWords => words[name] ?? { title: name, also: '' }

/** Names that have words; a test holds them against the catalogue. */
export const namesWithWords: readonly string[] = Object.keys(words)
