import { z } from 'zod'
import { finite, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { OnBase } from './base'
import type { OnFrame } from './frame'
import { feetOf, type Outrigger, type OutriggerSetting, type onOutriggers, pointOf } from './outriggers'
import { propContacts, propPoints, propsPart, withoutProps } from './props'
import type { onRunway } from './runway'
import type { SupportModel, SupportState } from './support'
import type { OnTowers } from './towers'
import { type OnTracks, type TracksPart, trackContacts } from './tracks'
import { type onWheels, type WheelsPart, wheelPoints } from './wheels'

const sector = z.strictObject({ from_deg: finite, to_deg: finite })

/** The ways in which a machine can stand, the least work first. */
export const supportStates = z
  .array(
    z.strictObject({
      id: z.string().min(1),
      label: z.string().min(1),
      on: z.enum(['outriggers', 'wheels']),
      contacts: z.array(z.strictObject({ id: z.string().min(1), x_m: finite, y_m: finite })).optional(),
      configurations: z.array(z.string().min(1)).min(1).optional(),
      slew: sector.optional(),
      boom_m: z.array(positive).min(1).optional(),
      /** Only straight up and down: nothing is turned, drawn out or luffed. */
      upAndDown: z.literal(true).optional(),
      props: propsPart.optional(),
      for: z.enum(['lift', 'tow']).default('lift'),
      needs: z.array(z.string().min(1)).default([]),
    }),
  )
  .min(2)

/** The parts of a machine that it can stand on. */
export interface StandsOn {
  name: string
  outriggers?: readonly Outrigger[] | undefined
  wheels?: WheelsPart | undefined
  tracks?: TracksPart | undefined
  tower?: { base?: { half_m: number } | undefined } | undefined
  supportStates?: readonly SupportState[] | undefined
}

type Standing =
  | z.infer<typeof onOutriggers>
  | z.infer<typeof onWheels>
  | z.infer<typeof onRunway>
  | OnTowers
  | OnFrame
  | OnBase
  | OnTracks

/** How outriggers are set by a plan; none where the machine stands on its wheels. */
export const outriggersIn = (standing: Standing): readonly OutriggerSetting[] =>
  standing.on === 'outriggers' ? standing.outriggers : []

/** @throws Refusal `unknown-state` naming those there are */
function stateNamed({ name, supportStates: states }: StandsOn, standing: Standing): SupportState | null {
  if (!states) {
    if (standing.state === undefined) return null
    throw new Refusal('unknown-state', `${name} has only one way of standing; leave the state out.`, 'setup.standing.state')
  }
  const found = states.find((s) => s.id === standing.state && s.on === standing.on)
  if (found) return found
  const there = states.map((s) => s.id).join(', ')
  throw new Refusal('unknown-state', `Say how ${name} stands: ${there}.`, 'setup.standing.state')
}

/** It is set up to tow, not to lift. */
export const standsToTow = ({ supportStates }: Pick<StandsOn, 'supportStates'>, { state }: Pick<Standing, 'state'>): boolean =>
  supportStates?.find((s) => s.id === state)?.for === 'tow'

/** Four corners; what is under them, its papers say. */
const baseOf = (half_m: number): SupportModel => ({
  on: 'base',
  state: null,
  points: [],
  contacts: [
    { id: 'FL', x_m: half_m, y_m: half_m },
    { id: 'FR', x_m: half_m, y_m: -half_m },
    { id: 'RL', x_m: -half_m, y_m: half_m },
    { id: 'RR', x_m: -half_m, y_m: -half_m },
  ],
  settings: [],
})

/**
 * How a machine stands by its plan.
 *
 * @throws Refusal `unknown-state`, `missing-leg`, `unknown-leg`, `unknown-stop`; `step-not-possible` where it has no such support
 */
export function supportOf(machine: StandsOn, standing: Standing): SupportModel {
  const state = stateNamed(machine, standing)
  if (standing.on === 'wheels') {
    if (!machine.wheels) throw new Refusal('unknown-state', `${machine.name} is not rated on its wheels.`, 'setup.standing.on')
    const corners = wheelPoints(machine.wheels, standing.ground)
    return {
      on: 'wheels',
      state,
      points: corners.map((c) => c.point),
      contacts: corners.map((c) => c.contact),
      settings: corners.map((c) => c.setting),
    }
  }
  if (standing.on === 'base' && machine.tower?.base) return baseOf(machine.tower.base.half_m)
  if (standing.on === 'tracks' && machine.tracks)
    return { on: 'tracks', state, points: [], contacts: trackContacts(machine.tracks), settings: [] }
  if (standing.on !== 'outriggers' || !machine.outriggers)
    throw new Refusal('unknown-state', `${machine.name} does not stand so; say what it stands on.`, 'setup.standing.on')
  const outriggers = machine.outriggers ?? []
  const props = state?.props
  const feet = feetOf(outriggers, withoutProps(standing.outriggers, props))
  return {
    on: 'outriggers',
    state,
    points: [...outriggers.map(pointOf), ...(props ? propPoints(props) : [])],
    contacts: [
      ...feet.map((foot) => ({ ...foot, ...state?.contacts?.find((c) => c.id === foot.id) })),
      ...(props ? propContacts(props) : []),
    ],
    settings: standing.outriggers,
  }
}
