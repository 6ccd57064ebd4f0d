import type { Machine } from '../machine/machine'
import { randomFrom } from '../practice/random'
import { type StateValue, unknown } from '../procedure/condition'
import { type EmergencyCard, emergencyCards } from '../procedure/emergency'
import { ahead, isDone, permitted } from '../procedure/engine'
import { type Need, type StateDeclaration, type Step, setBy } from '../procedure/file'
import { declarations, stepNamed, type World } from '../procedure/world'
import { follow, isEnd, type SymptomPath, type SymptomQuestion } from '../troubleshooting/path'
import { symptomsOf } from '../troubleshooting/shown'
import type { SequenceAct, TimedAct } from './act'
import { canBeSeen, type SequenceCourse, seenAs, shuffled, statesOfCourse } from './course'
import { type Cue, isCue, type SequenceFault } from './fault'
import { losesAtEnd } from './faults-of'
import { doneRight, happened, inPractice, takenBack } from './walks'

/** A try that was refused, or would have gone wrong: what it was, and what would have broken. */
export interface RefusedTry {
  tick: number
  step: Step
  unmet: readonly Need[]
  /** Nobody would have refused it: it rested on what was said and was not so. */
  trusted: boolean
  /** It can hurt. */
  grave: boolean
}

/** Something that came in the open, and how it was met. */
export interface Met {
  cue: Cue
  /** When it came, and when it was first met rightly; null: never. */
  from: number
  right: number | null
  /** Something else was done first. */
  wrongFirst: boolean
  /** Acts out of order on its card, its reset or its way. */
  slips: number
}

/** What the last act came to, to be told at once. */
export type Told =
  | { of: 'taken'; step: Step }
  | { of: 'refused'; try: RefusedTry }
  | { of: 'seen'; state: string; is: StateValue; was: StateValue }
  | { of: 'met'; cue: Cue }
  | { of: 'wrong'; cue: Cue }
  | { of: 'slip' }
  /** Stood still, and called. */
  | { of: 'waited' }
  /** The right one of what is done in order. */
  | { of: 'on' }
  | { of: 'override'; label: string }
  | { of: 'nothing' }

/** What is to be done in order before it goes on. */
export type Following =
  | { of: 'reset'; stop: string; left: readonly string[]; offered: readonly string[] }
  | { of: 'card'; card: EmergencyCard; left: readonly string[]; offered: readonly string[] }
  | { of: 'way'; path: SymptomPath; answers: readonly string[]; question: SymptomQuestion; looked: boolean }

/**
 * An order of work kept, act by act: what is known and what is so, what happens, and how it is met. The same acts come to the same everywhere.
 */
export class SequenceDrill {
  told: World
  /** What is not as it was handed over, until it is looked at or made so. */
  private readonly hidden = new Map<string, StateValue>()
  /** A step that is not done, whatever somebody has said, and how it stood. */
  private untaken: { step: Step; before: World } | null = null
  /** What was known before it was lost. */
  private readonly before = new Map<string, StateValue>()
  /** Steps of the course that have been taken, each counted once however often it is done and undone. */
  private readonly own = new Set<string>()
  active: Met | null = null
  following: Following | null = null
  over = false
  readonly met: Met[] = []
  readonly refused: RefusedTry[] = []
  readonly overrides: string[] = []
  /** Steps that somebody has said are done. */
  readonly claims: { step: Step; true: boolean }[] = []
  last: Told = { of: 'nothing' }
  private readonly waiting: SequenceFault[]
  private tick = 0

  constructor(
    readonly machine: Machine,
    readonly course: SequenceCourse,
    private readonly seed: number,
  ) {
    this.told = course.begin
    this.waiting = course.faults.filter((f) => f.kind !== 'untrue')
    for (const f of course.faults) if (f.kind === 'untrue') this.hidden.set(f.state, f.is)
    this.happens()
  }

  /** How far it has come, from which it follows what comes next. */
  get taken(): number {
    return this.own.size
  }

  /** As it is, whatever has been said. */
  get truth(): World {
    const { untaken, told } = this
    const w = untaken ? takenBack(told, untaken.before, untaken.step) : told
    return [...this.hidden].reduce((x, [state, is]) => seenAs(this.course.file, x, state, is), w)
  }

  /** States that were known, are not any more, and are looked for anew. */
  get toLookAt(): StateDeclaration[] {
    return statesOfCourse(this.course).filter(
      (s) => s.usual !== undefined && (this.told.states[s.id]?.value ?? unknown) === unknown,
    )
  }

  /** As things are known no step of the procedure can be taken: something has to be looked at. */
  get isStuck(): boolean {
    return !('step' in ahead(this.course.file, this.told, this.course.procedure, inPractice))
  }

  /** Every step of the course is done, nothing stands open, nothing more comes. */
  private get isEnded(): boolean {
    const { file, steps } = this.course
    if (this.active || this.following || this.waiting.some(isCue)) return false
    return [this.told, this.truth].every((w) => steps.every((s) => isDone(file, w, s, inPractice)))
  }

  do([tick, act]: TimedAct): Told {
    if (this.over) return this.last
    this.tick = tick
    this.last = this.came(act)
    this.happens()
    this.over ||= this.isEnded
    return this.last
  }

  /** What comes by now, one after the other. */
  private happens(): void {
    const { file, steps } = this.course
    for (;;) {
      const next = this.waiting[0]
      if (!next || this.active || this.following) return
      // Where all steps are done what is still to come comes at once.
      if (next.after > this.taken && !steps.every((s) => isDone(file, this.told, s, inPractice))) return
      this.waiting.shift()
      if (next.kind === 'claimed') this.claim(next.step, next.true)
      else if (isCue(next)) {
        this.active = { cue: next, from: this.tick, right: null, wrongFirst: false, slips: 0 }
        this.met.push(this.active)
      }
    }
  }

  private claim(id: string, isTrue: boolean): void {
    const { file } = this.course
    const step = stepNamed(file, id)
    if (!step || isDone(file, this.told, step, inPractice) || !('ok' in permitted(file, this.truth, id, inPractice))) return
    this.untaken = isTrue ? null : { step, before: this.told }
    this.told = doneRight(file, this.told, step)
    for (const state of setBy(step)) this.hidden.delete(state)
    this.claims.push({ step, true: isTrue })
  }

  private came(a: SequenceAct): Told {
    switch (a.do) {
      case 'look':
        return this.look(a.state)
      case 'step':
        return this.step(a.step)
      case 'stop':
        return this.meet((c) => c.kind === 'stop' && c.stop === a.stop)
      case 'lost':
        return this.meet((c) => c.kind === 'lost' && c.why === a.why)
      case 'symptom':
        return this.meet((c) => c.kind === 'symptom' && c.symptom === a.symptom)
      case 'emergency':
        return this.meet((c) => c.kind === 'emergency' && c.card === a.card)
      case 'call':
        return this.call()
      case 'override':
        return this.override(a.override)
      case 'next':
        return this.inOrder(a.words)
      case 'see':
        return this.see()
      case 'answer':
        return this.answer(a.label)
    }
  }

  private look(state: string): Told {
    const { file } = this.course
    const d = declarations(file).get(state)
    if (!canBeSeen(d)) return { of: 'nothing' }
    const was = this.told.states[state]?.value ?? unknown
    const { untaken } = this
    if (untaken && setBy(untaken.step).includes(state)) {
      this.told = takenBack(this.told, untaken.before, untaken.step)
      this.untaken = null
    }
    const anew = was === unknown && d.usual !== undefined ? this.asBefore(state, d.usual) : null
    const is = this.hidden.get(state) ?? anew
    this.hidden.delete(state)
    if (is !== null && is !== was) this.told = seenAs(file, this.told, state, is)
    return { of: 'seen', state, is: this.told.states[state]?.value ?? unknown, was }
  }

  private asBefore(state: string, usual: StateValue): StateValue {
    const was = this.before.get(state) ?? unknown
    return was === unknown ? usual : was
  }

  /** Anything else than what is right while something is the matter. */
  private wrong({ cue }: Met): Told {
    if (this.active && !this.active.wrongFirst) this.active.wrongFirst = true
    else if (this.active) this.active.slips++
    return { of: 'wrong', cue }
  }

  private step(id: string): Told {
    const { file } = this.course
    const step = stepNamed(file, id)
    if (!step) return { of: 'nothing' }
    if (this.active) return this.wrong(this.active)
    if (this.following) return this.slip()
    if (isDone(file, this.told, step, inPractice) && !step.repeats) return { of: 'nothing' }
    const verdict = permitted(file, this.told, id, inPractice)
    if ('refused' in verdict) return this.refuse(step, verdict.unmet, false)
    const really = permitted(file, this.truth, id, inPractice)
    if ('refused' in really) {
      for (const state of [...this.hidden.keys(), ...(this.untaken ? setBy(this.untaken.step) : [])]) this.look(state)
      return this.refuse(step, really.unmet, true)
    }
    this.told = doneRight(file, this.told, step)
    this.made(setBy(step))
    if (this.course.steps.includes(step)) this.own.add(step.id)
    return { of: 'taken', step }
  }

  /** States that a step has made what they are: what was said of them before is past. */
  private made(states: readonly string[]): void {
    for (const s of states) this.hidden.delete(s)
    if (this.untaken && setBy(this.untaken.step).some((s) => states.includes(s))) this.untaken = null
  }

  private refuse(step: Step, unmet: readonly Need[], trusted: boolean): Told {
    const refused = { tick: this.tick, step, unmet, trusted, grave: trusted || step.hazards.length > 0 }
    this.refused.push(refused)
    return { of: 'refused', try: refused }
  }

  /** Met rightly: what it does is taken in, and what has to be done in order begins. */
  private meet(isRight: (c: Cue) => boolean): Told {
    const met = this.active
    if (!met) return { of: 'nothing' }
    if (!isRight(met.cue)) return this.wrong(met)
    met.right = this.tick
    this.active = null
    this.following = this.begun(met.cue)
    return { of: 'met', cue: met.cue }
  }

  private begun(cue: Cue): Following | null {
    const f = this.course.file
    const random = randomFrom(this.seed, `order ${this.met.length}`)
    if (cue.kind === 'lost') this.happen({ do: 'lost', why: cue.why })
    if (cue.kind === 'stop') {
      const stop = f.stops.find((s) => s.id === cue.stop)
      if (!stop) return null
      this.happen({ do: 'stop-pressed', stop: stop.id })
      return { of: 'reset', stop: stop.id, left: stop.reset, offered: shuffled(random, stop.reset) }
    }
    const cards = emergencyCards(f.emergency)
    if (cue.kind === 'emergency') {
      const card = cards.find((c) => c.id === cue.card)
      if (!card) return null
      const others = cards.filter((c) => c !== card).flatMap((c) => c.acts.filter((a) => !card.acts.includes(a)))
      const decoys = shuffled(random, [...new Set(others)]).slice(0, 2)
      return { of: 'card', card, left: card.acts, offered: shuffled(random, [...card.acts, ...decoys]) }
    }
    const path = cue.kind === 'symptom' ? symptomsOf(this.machine).find((p) => p.symptom === cue.symptom) : undefined
    if (!path) return null
    this.happen({ do: 'symptom-begin', symptom: path.symptom })
    return this.asking(path, [])
  }

  private happen(act: Record<string, unknown>): void {
    const [known, truth] = [this.told, this.truth]
    this.told = happened(this.course.file, known, act)
    // What is lost is looked for anew, and is what it was.
    const changed = Object.keys(known.states).filter((s) => this.told.states[s] !== known.states[s])
    for (const s of changed) this.before.set(s, truth.states[s]?.value ?? unknown)
    this.made(changed)
  }

  private asking(path: SymptomPath, answers: readonly string[]): Following | null {
    const question = follow(path, answers, { share: null })
    if (!isEnd(question)) return { of: 'way', path, answers, question, looked: false }
    if (question.end !== 'continue') this.over = true
    const loses = losesAtEnd(this.machine, path.symptom, answers)
    this.happen({ do: 'symptom', symptom: path.symptom, answers: [...answers], end: question.end, loses: [...loses] })
    return null
  }

  /** Standing still and calling: right where no list has an answer, and never a fault but in an emergency, which has its card. */
  private call(): Told {
    const met = this.active
    if (met?.cue.kind === 'emergency') return this.wrong(met)
    if (met?.cue.kind === 'unlisted') return this.meet((c) => c === met.cue)
    return { of: 'waited' }
  }

  private override(id: string): Told {
    const o = this.course.file.overrides.find((x) => x.id === id)
    if (!o) return { of: 'nothing' }
    this.overrides.push(o.id)
    if (this.active) this.wrong(this.active)
    return { of: 'override', label: o.label }
  }

  private slip(): Told {
    const met = this.met.at(-1)
    if (met) met.slips++
    return { of: 'slip' }
  }

  /** The lines of a card or a reset, in their order. */
  private inOrder(words: string): Told {
    const now = this.following
    if (!now || now.of === 'way') return { of: 'nothing' }
    const [first, ...left] = now.left
    if (words !== first) return this.slip()
    if (left.length > 0) this.following = { ...now, left }
    else {
      this.following = null
      if (now.of === 'reset') this.happen({ do: 'reset', stop: now.stop })
      else this.over = true
    }
    return { of: 'on' }
  }

  private see(): Told {
    if (this.following?.of === 'way') this.following = { ...this.following, looked: true }
    return { of: 'on' }
  }

  /** What is to be found at the question that is open. */
  get finds(): string | null {
    const [now, met] = [this.following, this.met.at(-1)]
    return now?.of === 'way' && met?.cue.kind === 'symptom' ? (met.cue.finds[now.answers.length] ?? null) : null
  }

  private answer(label: string): Told {
    const now = this.following
    if (now?.of !== 'way') return { of: 'nothing' }
    if (label !== this.finds) return this.slip()
    this.following = this.asking(now.path, [...now.answers, label])
    return { of: 'on' }
  }
}
