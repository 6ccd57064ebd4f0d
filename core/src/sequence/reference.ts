import { ahead } from '../procedure/engine'
import type { Step } from '../procedure/file'
import type { SequenceAct } from './act'
import { canBeSeen, restsOn } from './course'
import type { SequenceDrill } from './drill'
import { inPractice } from './walks'

/** What answers what has come, as the machine’s file has it; null: nothing stands in the way. */
export function answerTo({ active, following, finds }: SequenceDrill): SequenceAct | null {
  const cue = active?.cue
  if (cue?.kind === 'stop') return { do: 'stop', stop: cue.stop }
  if (cue?.kind === 'lost') return { do: 'lost', why: cue.why }
  if (cue?.kind === 'symptom') return { do: 'symptom', symptom: cue.symptom }
  if (cue?.kind === 'emergency') return { do: 'emergency', card: cue.card }
  if (cue?.kind === 'unlisted') return { do: 'call' }
  if (following?.of === 'way') return { do: 'answer', label: finds ?? '' }
  return following ? { do: 'next', words: following.left[0] ?? '' } : null
}

/** The step that the file’s order has next; null: none can be taken as things are known. */
function nextIn({ course, told }: SequenceDrill): Step | null {
  const n = ahead(course.file, told, course.procedure, inPractice)
  return 'step' in n ? n.step : null
}

const most_acts = 400

/**
 * A course kept to its end in the file’s order, everything that comes answered as it should be.
 *
 * @param looks at what a step rests on before it is taken, whatever has been said; without, everybody’s word is taken and only what is not known
 * is looked at
 */
export function keep(drill: SequenceDrill, looks: boolean): SequenceAct[] {
  const f = drill.course.file
  const acts: SequenceAct[] = []
  const act = (a: SequenceAct) => {
    acts.push(a)
    drill.do([acts.length, a])
  }
  while (!drill.over && acts.length < most_acts) {
    const answer = answerTo(drill)
    if (answer) {
      act(answer)
      continue
    }
    for (const s of drill.toLookAt) act({ do: 'look', state: s.id })
    const step = nextIn(drill)
    if (!step) break
    if (looks) {
      const asked = f.states.filter((s) => restsOn(f, step).includes(s.id) && canBeSeen(s))
      for (const s of asked) act({ do: 'look', state: s.id })
      if (nextIn(drill) !== step) continue
    }
    act({ do: 'step', step: step.id })
  }
  return acts
}
