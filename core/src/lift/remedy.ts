import type { SlewStep } from '../parts/stability/slew'
import type { MatKind } from '../place/place'

/** One change to a lift or its set-up, as data. */
export type RemedyKind =
  | { kind: 'radius'; radius_m: number; less_m: number }
  | { kind: 'mass'; mass_kg: number; less_kg: number }
  | { kind: 'split'; lifts: number; mass_kg: number }
  | { kind: 'slew-direction'; slewDirection: SlewStep['slewDirection'] }
  | { kind: 'set-down-slew'; slew_deg: number; by_deg: number }
  | { kind: 'extension'; outriggers: { id: string; label: string; stop: string; stopLabel: string }[] }
  /** Another of the machine's ways of standing. */
  | { kind: 'support'; state: string; label: string }
  | { kind: 'mat'; outrigger: string; label: string; mat: MatKind }
  | { kind: 'mat-size'; outrigger: string; label: string; side_m: number }
  | { kind: 'parts-of-line'; partsOfLine: number }
  | { kind: 'boom'; boom_m: number }
  | { kind: 'counterweight'; id: string; label: string }
  | { kind: 'wind'; wind_mps: number }
  | { kind: 'slings'; length_m: number; more_m: number }
  /** On forks: stacked lower, turned so that its centre comes nearer, driven the other way round. */
  | { kind: 'height'; height_m: number }
  | { kind: 'load-centre'; centre_m: number }
  | { kind: 'facing'; facing: 'load-first' | 'load-last' }
  /** Between towers or in slings: its centre nearer the middle, or towers raised no further than a stage. */
  | { kind: 'centre'; axis: 'along' | 'across'; by_m: number; towards: 'front' | 'rear' | 'left' | 'right' }
  | { kind: 'stage'; height_m: number }
  | { kind: 'linkage' }
  /** A boom drawn in before it is raised or lowered, and out again only there. */
  | { kind: 'retract-first' }
  /** Behind: less on the arm, or the arm drawn in. */
  | { kind: 'lifted'; mass_kg: number; less_kg: number }
  | { kind: 'arm'; out_m: number; less_m: number }
  /** A place where people walk, closed while the load is up. */
  | { kind: 'close'; feature: string; label: string }
  | { kind: 'level' }

/** The kinds of change that can put a finding right. */
export type RemedyName = RemedyKind['kind']
