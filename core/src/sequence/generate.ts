import type { Machine } from '../machine/machine'
import { randomFrom } from '../practice/random'
import { Refusal } from '../refusal'
import { pick, type Random, type SequenceCourse } from './course'
import { SequenceDrill } from './drill'
import type { SequenceFault } from './fault'
import { claimedIn, cuesFor, endsIt, untrueIn } from './faults-of'
import { keep } from './reference'
import { type Walk, walksOf } from './walks'

/** A procedure with fewer is no sequence. */
const least_steps = 3
const [shortest, longest] = [6, 10]
const tries = 60

/** Of what is not as it is said, so much is so from the beginning; the rest is called over on the way. */
const handedOver_share = 0.7

/** So many things happen. */
const happen = (level: number) => 2 + Math.round(2 * level)

function faultsFor(random: Random, m: Machine, c: SequenceCourse, walk: Walk['worlds'], level: number): SequenceFault[] {
  const [untrue, claimed] = [untrueIn(random, c, walk), claimedIn(random, c, walk)]
  const lie = random() < handedOver_share ? (untrue ?? claimed) : (claimed ?? untrue)
  const all = [...(lie ? [lie] : []), ...cuesFor(random, m, c)].slice(0, happen(level))
  // Of what ends it only one, and as the last.
  const last = all.find((x) => endsIt(m, x))
  return [...all.filter((x) => !endsIt(m, x)), ...(last ? [last] : [])].sort((a, b) => a.after - b.after)
}

/** A part of a walk, long enough to be an order and short enough for five minutes. */
function partOf(random: Random, { procedure, worlds, steps }: Walk) {
  const length = Math.min(steps.length, shortest + Math.floor(random() * (longest - shortest + 1)))
  const from = Math.floor(random() * (steps.length - length + 1))
  const walk = worlds.slice(from, from + length + 1)
  const [begin] = walk
  return begin ? { part: { procedure, begin, steps: steps.slice(from, from + length) }, walk } : null
}

/** Whether it is one to be practised: kept with open eyes it comes to its end, and taking everybody’s word for it goes wrong where it should. */
function isFair(m: Machine, course: SequenceCourse, seed: number): boolean {
  const lie = course.faults.find((x) => x.kind === 'untrue' || x.kind === 'claimed')
  if (!lie || course.faults.length < 2) return false
  const careful = new SequenceDrill(m, course, seed)
  keep(careful, true)
  if (!careful.over || careful.refused.length > 0) return false
  if (lie.kind === 'claimed' && lie.true) return careful.claims.length > 0
  const trusting = new SequenceDrill(m, course, seed)
  keep(trusting, false)
  return trusting.refused.some((t) => t.trusted)
}

/** Whether a machine’s order of work is one to be practised. */
export const canSequence = ({ procedures: f }: Pick<Machine, 'procedures'>): boolean =>
  f.procedures.some((p) => p.steps.length >= least_steps)

/**
 * A part of one of a machine’s orders of work with what goes wrong in it, the same for a seed everywhere.
 *
 * @param level how much happens, 0 to 1
 * @throws Refusal `no-course` where none of its orders can be walked
 */
export function sequenceCourse(m: Machine, seed: number, level: number): SequenceCourse {
  const random = randomFrom(seed, 'sequence')
  for (let i = 0; i < tries; i++) {
    const standing = pick(random, m.supportStates ?? [])?.id ?? null
    const of = pick(
      random,
      walksOf(m, standing).filter((w) => w.steps.length >= least_steps),
    )
    const found = of && partOf(random, of)
    if (!found) continue
    const plain: SequenceCourse = { file: m.procedures, ...found.part, faults: [] }
    const course = { ...plain, faults: faultsFor(randomFrom(seed, `faults ${i}`), m, plain, found.walk, level) }
    if (isFair(m, course, seed)) return course
  }
  throw new Refusal('no-course', `${m.name} has no order of work long enough to be practised.`, 'machine')
}
