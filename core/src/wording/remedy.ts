import type { RemedyKind } from '../lift/remedy'
import type { Say } from './say'
import { stopWords } from './stop'
import { english, type Language } from './tell'

/** A change as an instruction. */
export function changeWords(c: RemedyKind, say: Say, { t, told }: Language = english): string {
  switch (c.kind) {
    case 'radius':
      return t`Work within ${say('length', c.radius_m)} radius, ${say('length', c.less_m)} less`
    case 'mass':
      return t`Lift at most ${say('mass', c.mass_kg)}, ${say('mass', c.less_kg)} less`
    case 'split':
      return t`Take it apart and lift it in ${c.lifts}, each at most ${say('mass', c.mass_kg)}`
    case 'slew-direction':
      return t`Turn the lift the other way round, ${c.slewDirection === 'clockwise' ? t`clockwise` : t`anticlockwise`}`
    case 'set-down-slew':
      return t`Set down at slew ${say('angle', c.slew_deg)}, ${say('angle', Math.abs(c.by_deg))} ${c.by_deg > 0 ? t`anticlockwise` : t`clockwise`}`
    case 'extension':
      return t`Put ${c.outriggers.map((l) => `${l.label} ${told(stopWords(l.stop, l.stopLabel))}`).join(t` and `)}`
    case 'mat':
      return t`Lay ${c.mat.label.toLowerCase()} under ${c.label}`
    case 'mat-size':
      return t`Spread the load under ${c.label} over ${say('length', c.side_m)} square`
    case 'parts-of-line':
      return t`Reeve ${c.partsOfLine} parts of line`
    case 'boom':
      return t`Use ${say('length', c.boom_m)} of boom`
    case 'counterweight':
      return t`Fit ${c.label.toLowerCase()}`
    case 'wind':
      return t`Wait until the wind is under ${say('speed', c.wind_mps)}`
    case 'slings':
      return t`Use slings of ${say('length', c.length_m)}, ${say('length', c.more_m)} longer`
    case 'support':
      return t`Stand ${c.label.charAt(0).toLowerCase()}${c.label.slice(1)}`
    case 'height':
      return t`Stack at ${say('length', c.height_m)} at most`
    case 'load-centre':
      return t`Bring its centre to ${say('length', c.centre_m)} from the face: turn the load, or take it closer`
    case 'facing':
      return c.facing === 'load-first' ? t`Drive with the load first` : t`Drive with the load last`
    case 'centre':
      return t`Bring its centre ${say('length', c.by_m)} towards the ${told(c.towards)}`
    case 'stage':
      return t`Raise the towers no higher than ${say('length', c.height_m)}`
    case 'retract-first':
      return t`Draw the boom in first, raise or lower it short, then out again`
    case 'linkage':
      return t`Hang it from one point of each header`
    case 'lifted':
      return t`Lift at most ${say('mass', c.mass_kg)} behind, ${say('mass', c.less_kg)} less`
    case 'arm':
      return t`Draw the arm in to ${say('length', c.out_m)}, ${say('length', c.less_m)} less`
    case 'close':
      return t`Close ${c.label.toLowerCase()} while the load is up, with somebody who keeps it closed`
    case 'level':
      return t`Level the machine again and read both ways`
  }
}
