import { z } from 'zod'
import { answer, parseOrRefuse } from '../calculator/define'
import { standing } from '../lift/plan'
import { footLiftInput, raisingWay } from '../lift/raising'
import { type Crane, liftsOnHook } from '../machine/crane'
import type { Machine } from '../machine/machine'
import { positive, tolerant } from '../quantity/measured'
import { footLiftCalculator } from '../statics/foot-lift'

type Own = (machine: Crane, given: unknown) => object

const raisingGiven = z.strictObject({ boom_m: positive, counterweight: z.string(), on: z.string() })
const footGiven = z.strictObject({ boom_m: positive, slingFromFoot_m: tolerant })

/** What a machine works out of itself, by name, with its own masses and lengths put in. */
const own: Readonly<Record<string, Own>> = {
  /** Whether a boom of this length is raised from the ground by its short mast: yes, no, or only as its book says, where something is suspended. */
  'boom-raising': (machine, given) => {
    const { boom_m, counterweight, on } = parseOrRefuse(raisingGiven, given)
    // What lies under its feet is another question.
    const way = raisingWay(machine, parseOrRefuse(standing, { on, ground: null }), boom_m, counterweight)
    return way ? { ...way, may: way.may ? 'yes' : 'no' } : { may: 'by-book' }
  },
  'foot-lift': (machine, given) => {
    const { boom_m, slingFromFoot_m } = parseOrRefuse(footGiven, given)
    return footLiftCalculator.run({ ...footLiftInput(machine, boom_m), slingFromFoot_m })
  },
}

/**
 * What a machine answers to a question of its order that rests on its own figures; null: it has no answer to it.
 *
 * @example ownAnswer(kittiwake, 'foot-lift', { boom_m: 48, slingFromFoot_m: 1.5 }) // { mastTip_m: 2.8, … }
 */
export function ownAnswer(machine: Machine, name: string, given: unknown): object | null {
  const ask = own[name]
  return ask && liftsOnHook(machine) ? answer(() => ask(machine, given)) : null
}
