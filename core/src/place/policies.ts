import { type Policy, sitePolicy } from './place'

/** One question on which practice differs: what a site may answer, what it is without an answer, and why. */
export interface PolicyQuestion {
  /** Where its answer stands in a site's policy. */
  id: string
  question: string
  /** Why it is what it is unless a site says otherwise. */
  why: string
  /** Answers in words, the hardest first; or a figure, and which way is harder. */
  answer:
    | { choices: readonly { value: string; label: string }[] }
    | { quantity: 'length' | 'angle' | 'share' | 'plain'; harder: 'less' | 'more' }
}

/** Every one of them that a check or a rule of the house asks for. */
export const policyQuestions: readonly PolicyQuestion[] = [
  {
    id: 'readingRule',
    question: 'Between two rows of a table',
    why: 'The worse row is never optimistic; a straight line only where the table itself allows it.',
    answer: {
      choices: [
        { value: 'worse-row', label: 'The worse row' },
        { value: 'linear', label: 'A straight line, where the table allows it' },
      ],
    },
  },
  {
    id: 'legLoads',
    question: 'What an outrigger is taken to carry',
    why: 'Ground gives unevenly; the most that it can carry however it settles is never too little.',
    answer: {
      choices: [
        { value: 'upper', label: 'The most, however the ground settles' },
        { value: 'elastic', label: 'As on even, elastic ground' },
      ],
    },
  },
  {
    id: 'near_share',
    question: 'Near a limit from',
    why: 'Most machines warn at nine tenths; a machine’s own alarm counts where it comes sooner.',
    answer: { quantity: 'share', harder: 'less' },
  },
  {
    id: 'dynamicFactor',
    question: 'Hook load for outriggers and ground, times',
    why: 'A tenth more for the jerk of lifting off and stopping.',
    answer: { quantity: 'plain', harder: 'more' },
  },
  {
    id: 'thingGap_m',
    question: 'Room kept from whatever stands there',
    why: 'A boom bends, a load turns, and nobody judges a hand’s width from the seat.',
    answer: { quantity: 'length', harder: 'more' },
  },
  {
    id: 'quietSwing_deg',
    question: 'A load that is started and stopped quietly swings',
    why: 'What a practised operator keeps a load within.',
    answer: { quantity: 'angle', harder: 'more' },
  },
  {
    id: 'overdueExamination',
    question: 'A machine whose thorough examination is overdue',
    why: 'Nobody knows what it would have shown.',
    answer: {
      choices: [
        { value: 'bar', label: 'Is not taken' },
        { value: 'tell', label: 'Is taken, and it is said' },
      ],
    },
  },
  {
    id: 'severalMachines',
    question: 'Somebody who has a machine takes another',
    why: 'Yards with few people work so; whoever does is told what is still open.',
    answer: {
      choices: [
        { value: 'refuse', label: 'Is refused' },
        { value: 'tell', label: 'May, and is told' },
      ],
    },
  },
  {
    id: 'wheelsAtSetUp',
    question: 'Wheels of a machine on its legs',
    why: 'The machine’s own book knows what its frame bears. Wheels never count as support.',
    answer: {
      choices: [
        { value: 'book', label: 'As its book has it' },
        { value: 'touching', label: 'Touching, suspension unloaded' },
        { value: 'clear', label: 'Clear of the ground' },
      ],
    },
  },
  {
    id: 'trialOfLike',
    question: 'A load like the last one is tried a hand’s width up',
    why: 'What held once holds again, unless there is little to spare.',
    answer: {
      choices: [
        { value: 'each', label: 'Each of them' },
        { value: 'over-four-fifths', label: 'Over four fifths of the rating' },
      ],
    },
  },
  {
    id: 'charging',
    question: 'A truck’s battery is charged',
    why: 'A battery lasts longer when it is charged as it gets low, unless its book says otherwise.',
    answer: {
      choices: [
        { value: 'every-shift-end', label: 'At the end of every shift' },
        { value: 'when-low', label: 'When it is low' },
      ],
    },
  },
  {
    id: 'emptyOnRamp',
    question: 'An empty truck on a ramp',
    why: 'Forks downhill keeps the weight over its driven wheels. A load is uphill, always.',
    answer: {
      choices: [
        { value: 'forks-downhill', label: 'Forks downhill' },
        { value: 'as-signed', label: 'As the ramp’s sign says' },
      ],
    },
  },
  {
    id: 'boomLeft',
    question: 'A long boom that is left',
    why: 'Its book has an angle for the wind, and a figure over which it lies down.',
    answer: {
      choices: [
        { value: 'always-down', label: 'Lies on the ground, always' },
        { value: 'down-over-figure', label: 'At its angle; down when wind over its figure is forecast' },
      ],
    },
  },
  {
    id: 'leftBriefly',
    question: 'A truck that is left for a while, forks down, brake on',
    why: 'One habit, and nobody else drives it.',
    answer: {
      choices: [
        { value: 'key-out', label: 'Key out, always' },
        { value: 'key-in-near', label: 'Key out beyond 5 m or out of sight' },
      ],
    },
  },
  {
    id: 'practice.before',
    question: 'Before a first shift on a kind of machine, or after an absence',
    why: 'Practice shows practice, no skill on the machine itself; a site may ask for it all the same.',
    answer: {
      choices: [
        { value: 'certificate', label: 'A certificate of practice is asked for' },
        { value: 'passed', label: 'A passed run of practice is asked for' },
        { value: 'recommended', label: 'Practice is recommended' },
      ],
    },
  },
  {
    id: 'practice.absence_days',
    question: 'Away from a kind of machine for longer than this is an absence, days',
    why: 'What hands have not done for three months they do slower.',
    answer: { quantity: 'plain', harder: 'less' },
  },
  {
    id: 'practice.counts_days',
    question: 'A passed run and a certificate of practice count for, days',
    why: 'Half a year is as long as a certificate is in date.',
    answer: { quantity: 'plain', harder: 'less' },
  },
  {
    id: 'trucks.sideGap_m',
    question: 'Left free on each side of a truck’s way',
    why: 'Room to steer without touching.',
    answer: { quantity: 'length', harder: 'more' },
  },
  {
    id: 'trucks.headGap_m',
    question: 'Left free over a truck',
    why: 'A mast rises over every bump.',
    answer: { quantity: 'length', harder: 'more' },
  },
  {
    id: 'trucks.stabilityShare',
    question: 'Of the room to its edges, slope, braking and turning may take',
    why: 'The other half is for what nobody reckoned with.',
    answer: { quantity: 'share', harder: 'less' },
  },
  {
    id: 'trucks.raisedTilt_pct',
    question: 'A floor is taken out of level by, per cent',
    why: 'For trucks that passed no tilting platform: a level floor is rarely level.',
    answer: { quantity: 'plain', harder: 'more' },
  },
  {
    id: 'trucks.travelFork_m',
    question: 'Forks no higher than, on the way with a load',
    why: 'A hand’s width: the lowest that clears the floor.',
    answer: { quantity: 'length', harder: 'less' },
  },
  {
    id: 'trucks.gripShare',
    question: 'A clamp holds by friction, times what hangs',
    why: 'Faces are never as dry or as even as they look.',
    answer: { quantity: 'plain', harder: 'more' },
  },
  {
    id: 'trucks.steerLeast.empty',
    question: 'Weight kept on the steered axle, empty',
    why: 'With less a truck does not go where it is steered. No standard gives it.',
    answer: { quantity: 'share', harder: 'more' },
  },
  {
    id: 'trucks.steerLeast.laden',
    question: 'Weight kept on the steered axle, with a load',
    why: 'With less a truck does not go where it is steered. No standard gives it.',
    answer: { quantity: 'share', harder: 'more' },
  },
  ...(
    [
      ['dry', 'a dry floor'],
      ['wet', 'a wet floor'],
      ['wet-steel', 'wet steel plate'],
      ['ice', 'ice'],
    ] as const
  ).map(
    ([id, floor]): PolicyQuestion => ({
      id: `trucks.friction.${id}`,
      question: `Tyres hold on ${floor}`,
      why: 'What rubber holds at its worst; a site may know less of its own floor.',
      answer: { quantity: 'plain', harder: 'less' },
    }),
  ),
]

/** Without any answer of a site's own. */
export const usualPolicy: Policy = sitePolicy.parse({})

/** The answer that stands in a policy. @throws RangeError where there is no such question: a defect of ours */
export function answerIn(policy: Policy, id: string): number | string {
  const value = id
    .split('.')
    .reduce<unknown>((v, key) => (typeof v === 'object' && v !== null ? Reflect.get(v, key) : undefined), policy)
  if (typeof value !== 'number' && typeof value !== 'string') throw new RangeError(`no policy ${id}`)
  return value
}

/** The same policy with one answer changed; whether it may be so is for the schema to say. */
export function withAnswer(policy: Policy, id: string, value: number | string): unknown {
  const put = (v: unknown, [key, ...rest]: string[]): unknown =>
    key === undefined ? value : { ...(v as object), [key]: put(Reflect.get(Object(v), key), rest) }
  return put(policy, id.split('.'))
}

/** It is softer than without an answer: an engineer stands for it, or it is not so. */
export function isSofter({ id, answer }: PolicyQuestion, value: number | string): boolean {
  const usual = answerIn(usualPolicy, id)
  if ('choices' in answer) {
    const rank = (v: number | string) => answer.choices.findIndex((c) => c.value === v)
    return rank(value) > rank(usual)
  }
  return answer.harder === 'less' ? value > usual : value < usual
}
