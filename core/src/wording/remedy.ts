import type { RemedyKind } from '../lift/remedy'
import type { Say } from './say'
import { stopWords } from './stop'

/** A change as an instruction. */
export function changeWords(c: RemedyKind, say: Say): string {
  switch (c.kind) {
    case 'radius':
      return `Work within ${say('length', c.radius_m)} radius, ${say('length', c.less_m)} less`
    case 'mass':
      return `Lift at most ${say('mass', c.mass_kg)}, ${say('mass', c.less_kg)} less`
    case 'split':
      return `Take it apart and lift it in ${c.lifts}, each at most ${say('mass', c.mass_kg)}`
    case 'slew-direction':
      return `Turn the lift the other way round, ${c.slewDirection}`
    case 'set-down-slew':
      return `Set down at slew ${say('angle', c.slew_deg)}, ${say('angle', Math.abs(c.by_deg))} ${c.by_deg > 0 ? 'anticlockwise' : 'clockwise'}`
    case 'extension':
      return `Put ${c.outriggers.map((l) => `${l.label} ${stopWords(l.stop, l.stopLabel)}`).join(' and ')}`
    case 'mat':
      return `Lay ${c.mat.label.toLowerCase()} under ${c.label}`
    case 'mat-size':
      return `Spread the load under ${c.label} over ${say('length', c.side_m)} square`
    case 'parts-of-line':
      return `Reeve ${c.partsOfLine} parts of line`
    case 'boom':
      return `Use ${say('length', c.boom_m)} of boom`
    case 'counterweight':
      return `Fit ${c.label.toLowerCase()}`
    case 'wind':
      return `Wait until the wind is under ${say('speed', c.wind_mps)}`
    case 'slings':
      return `Use slings of ${say('length', c.length_m)}, ${say('length', c.more_m)} longer`
    case 'support':
      return `Stand ${c.label.charAt(0).toLowerCase()}${c.label.slice(1)}`
    case 'height':
      return `Stack at ${say('length', c.height_m)} at most`
    case 'load-centre':
      return `Bring its centre to ${say('length', c.centre_m)} from the face: turn the load, or take it closer`
    case 'facing':
      return c.facing === 'load-first' ? 'Drive with the load first' : 'Drive with the load last'
    case 'lifted':
      return `Lift at most ${say('mass', c.mass_kg)} behind, ${say('mass', c.less_kg)} less`
    case 'arm':
      return `Draw the arm in to ${say('length', c.out_m)}, ${say('length', c.less_m)} less`
    case 'level':
      return 'Level the machine again and read both ways'
  }
}
