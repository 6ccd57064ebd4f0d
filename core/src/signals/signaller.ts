import type { DrawnSignal } from '../hand-signals/hand-signal'
import { randomFrom } from '../practice/random'

/** How somebody signals who means the same by it as everybody else. */
export interface SignallersWay {
  /** One arm that tells no side is their left. */
  leftHanded: boolean
  gloved: boolean
}

/** From this level on somebody may signal with the left hand, or in gloves. */
const others_level = 0.3
const [left_share, glove_share] = [0.4, 0.5]

/** Done with one arm, whichever it is; what points to a side is done with the arm of that side. */
const byOneArm: readonly DrawnSignal[] = ['hoist', 'lower', 'stop', 'boom-up', 'boom-down']

/** Whether a left-handed signaller does it with the other arm. @example isByEitherArm('left') // false */
export const isByEitherArm = (signal: DrawnSignal): boolean => byOneArm.includes(signal)

/**
 * Who signals in a run, the same for a seed everywhere: easy runs have it as it is agreed.
 *
 * @example signallerFor(7, 0) // { leftHanded: false, gloved: false }
 */
export function signallerFor(seed: number, level: number): SignallersWay {
  const random = randomFrom(seed, 'signaller')
  const [left, glove] = [random() < left_share, random() < glove_share]
  return { leftHanded: level >= others_level && left, gloved: level >= others_level && glove }
}
