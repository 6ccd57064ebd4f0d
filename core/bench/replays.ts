import {
  canDrive,
  canPractise,
  Drill,
  driveMarks,
  driveVersion,
  keyEvery_ticks,
  type LeverInputs,
  type LoadRun,
  type Machine,
  playDrive,
  playRun,
  practiceOn,
  practiceVersion,
  randomFrom,
  stepsOf,
} from '../src'

const longest_s = 60
const ticks_per_s = 120
/** Of a drive's track every so many places are compared. */
const trackEvery = 25

/** Levers pushed about at random, each for a tenth of a second to three. */
function pushedAbout(random: () => number, axes: number): LeverInputs {
  const inputs: LeverInputs = []
  for (let tick = 0; tick < longest_s * ticks_per_s; tick += Math.ceil((0.1 + 2.9 * random() ** 2) * ticks_per_s)) {
    const axis = Math.floor(random() * axes)
    const value = random() < 0.35 ? 0 : Math.round((2 * random() - 1) * 127)
    inputs.push([tick, axis, value])
  }
  return inputs
}

const head = (m: Machine, seed: number) => ({
  format: 'geolabe.practice/1' as const,
  id: '00000000-0000-4000-8000-000000000000',
  machine: { id: m.id, revision: m.revision },
  seed,
  level: randomFrom(seed, 'level')() * 0.8,
})

/** What a run comes to: its score and words, and the figures of its states, every ten seconds and at its end. */
export interface CameTo {
  says: string
  figures: number[]
}

/** A load driven at random on a machine with a hook. */
export function loadAtRandom(m: Machine, seed: number): CameTo {
  const { axes } = practiceOn(m, seed, head(m, seed).level).rig
  const inputs = pushedAbout(randomFrom(seed, 'levers'), axes.length)
  const ticks = longest_s * ticks_per_s
  const run: LoadRun = { ...head(m, seed), game: 'load', version: practiceVersion, inputs, stops: [], ticks, keys: [] }
  const { drill: whole, result } = playRun(m, run)
  const drill = new Drill(whole.rig, whole.course)
  const step = stepsOf(drill, run)
  const figures: number[] = []
  for (let tick = 0; tick < ticks && !drill.over; tick++) {
    step(tick)
    if (tick % keyEvery_ticks === 0) figures.push(...drill.key())
  }
  figures.push(...drill.key())
  const words = [...result.attempts, ...result.faults].map((x) => x.word)
  return { says: [result.score.toFixed(6), result.passed, result.stopped, ...words].join(' '), figures }
}

/** A truck driven at random. */
export function driveAtRandom(m: Machine, seed: number): CameTo {
  const inputs = pushedAbout(randomFrom(seed, 'levers'), 4)
  const drive = playDrive(m, { ...head(m, seed), game: 'drive', version: driveVersion, inputs, notes: [] })
  const poses = [...drive.track.filter((_, i) => i % trackEvery === 0), drive.motion.pose]
  const marks = driveMarks(drive)
  const says = [marks.score.toFixed(6), marks.passed, marks.stopped, ...marks.rules.map((r) => `${r.rule} ${r.mark}`)]
  return { says: says.join(' '), figures: poses.flatMap((p) => [p.x_m, p.y_m, p.heading_rad]) }
}

/** Every way in which a machine can be driven here. */
export const waysOf = (m: Machine) => [...(canPractise(m) ? [loadAtRandom] : []), ...(canDrive(m) ? [driveAtRandom] : [])]
