import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type AtWork,
  type Case,
  drivenLine,
  nominal,
  planDistance,
  rad,
  type SlewStep,
  spacesOf,
  straightBoom,
  together,
  toPlace,
} from '../src'
import { demoMachine, demoTable, northQuay, tern, ternFeet, ternLift, ternSetup } from './demo'
import { towerCase } from './tower-case'

const place = { ...northQuay, features: [] }
const size = { length_m: 2, width_m: 1, height_m: 1 }

const meet = (all: readonly AtWork[], gap_m: number) =>
  together(
    all.map((m) => ({ id: m.id, ...spacesOf(m) })),
    gap_m,
  )

interface Doing {
  x_m: number
  y_m: number
  heading_deg: number
  step: Pick<SlewStep, 'pickUp' | 'setDown' | 'slewDirection' | 'boom_m'>
}

function ternAt(id: string, { x_m, y_m, heading_deg, step }: Doing): AtWork & { plan: Case } {
  const setup = { ...ternSetup(), position: { x_m, y_m, heading_deg } }
  const lift = ternLift({
    ...step,
    load: { name: 'skid', mass_kg: 500, massSource: 'marked', windArea_m2: 1, dragCoefficient: 1, size },
  })
  const plan: Case = {
    machine: tern,
    tables: [demoTable('tern-main')],
    setup,
    lift,
    conditions: { wind_mps: 2 },
    place,
    policy: place.policy,
  }
  return { id, name: id, machine: tern, setup, plan }
}

const doing = fc.record({
  x_m: fc.double({ min: -40, max: 40, noNaN: true }),
  y_m: fc.double({ min: -40, max: 40, noNaN: true }),
  heading_deg: fc.double({ min: 0, max: 360, noNaN: true }),
  step: fc.record({
    boom_m: fc.constantFrom(14.6, 19.4, 24.2),
    pickUp: fc.record({
      radius_m: fc.double({ min: 5, max: 12, noNaN: true }),
      slew_deg: fc.double({ min: 0, max: 360, noNaN: true }),
    }),
    setDown: fc.record({
      radius_m: fc.double({ min: 5, max: 12, noNaN: true }),
      slew_deg: fc.double({ min: 0, max: 360, noNaN: true }),
    }),
    slewDirection: fc.constantFrom('anticlockwise' as const, 'clockwise' as const),
  }),
})

/** Points of a boom and its rope, drawn pose by pose from the plan alone. */
function pointsOf({ setup, plan }: AtWork & { plan: Case }) {
  const step = plan.lift.steps[0] as SlewStep
  const boom = straightBoom(tern.boom)
  const ahead = (((step.setDown.slew_deg - step.pickUp.slew_deg) % 360) + 360) % 360
  const turned = step.slewDirection === 'anticlockwise' || ahead === 0 ? ahead : ahead - 360
  return Array.from({ length: 25 }, (_, i) => {
    const t = i / 24
    const slew = step.pickUp.slew_deg + turned * t
    const radius = nominal(step.pickUp.radius_m) + (nominal(step.setDown.radius_m) - nominal(step.pickUp.radius_m)) * t
    const { tip_height_m } = boom.poseAtRadius(step.boom_m, radius)
    const at = (out: number) => toPlace(setup.position, { x_m: out * Math.cos(slew * rad), y_m: out * Math.sin(slew * rad) })
    const head = { ...at(radius), z: tip_height_m }
    const foot = { ...at(-tern.boom.pivot.back_m), z: tern.boom.pivot.height_m }
    // Between foot and head it bends by how its head is offset: that much is left to the boom's own width.
    const rope = [0, 0.25, 0.5, 0.75, 1].map((s) => ({ x: head.x_m, y: head.y_m, z: head.z * s }))
    return [{ x: foot.x_m, y: foot.y_m, z: foot.z }, ...rope]
  }).flat()
}

describe('Machines at one place', () => {
  it('are never said to be further apart than their booms and ropes are drawn, whichever is named first', () => {
    fc.assert(
      fc.property(doing, doing, (a, b) => {
        const [p, q] = [ternAt('one', a), ternAt('two', b)]
        const [meeting] = meet([p, q], 0.3)
        const [back] = meet([q, p], 0.3)
        if (!meeting || meeting.gap_m === null) throw new RangeError('they are not compared')
        expect(back?.gap_m).toBeCloseTo(meeting.gap_m, 9)
        const [ps, qs] = [pointsOf(p), pointsOf(q)]
        let least = Infinity
        for (const m of ps) for (const n of qs) least = Math.min(least, Math.hypot(m.x - n.x, m.y - n.y, m.z - n.z))
        expect(meeting.gap_m).toBeLessThanOrEqual(least + 1e-6)
      }),
      { numRuns: 40 },
    )
  }, 120_000)

  const facing = (x_m: number, from: number, to: number): Doing => ({
    x_m,
    y_m: 0,
    heading_deg: 0,
    step: {
      boom_m: 19.4,
      pickUp: { radius_m: 10, slew_deg: from },
      setDown: { radius_m: 10, slew_deg: to },
      slewDirection: 'anticlockwise',
    },
  })

  it('who meet half way: each waits where its load is out of the other’s way', () => {
    const [m] = meet([ternAt('west', facing(0, 270, 90)), ternAt('east', facing(22, 90, 270))], 0.3)
    expect(m?.verdict).toBe('outside')
    expect(m?.waiting).toContainEqual({ waits: 'east', at: 'start', works: 'west' })
    expect(m?.waiting).toContainEqual({ waits: 'west', at: 'end', works: 'east' })
  })

  it('who stand in each other’s way have nobody to wait; far apart both may work', () => {
    const [near] = meet([ternAt('a', facing(0, 270, 90)), ternAt('b', facing(1, 90, 270))], 0.3)
    expect(near).toMatchObject({ verdict: 'outside', gap_m: 0, waiting: [] })
    const [far] = meet([ternAt('a', facing(0, 270, 90)), ternAt('b', facing(60, 90, 270))], 0.3)
    expect(far?.verdict).toBe('inside')
    expect(far?.gap_m).toBeGreaterThan(20)
  })

  it('of which nobody knows what one does, or how large its load is, are not proven', () => {
    const a = ternAt('a', facing(0, 270, 90))
    const idle = { ...ternAt('b', facing(60, 90, 270)), plan: null }
    expect(meet([a, idle], 0.3)[0]).toMatchObject({ verdict: 'not-proven', unknown: [{ who: 'b', what: 'no-lift' }] })
    const { size: _, ...load } = a.plan.lift.hung.load
    const unsized = { ...a, plan: { ...a.plan, lift: { ...a.plan.lift, hung: { ...a.plan.lift.hung, load } } } }
    expect(meet([unsized, ternAt('b', facing(60, 90, 270))], 0.3)[0]?.verdict).toBe('not-proven')
  })

  it('one of them a truck: its way is kept clear, and one that is not drawn is not proven', () => {
    const machine = demoMachine('puffin')
    const crane = ternAt('tern', facing(0, 270, 90))
    const truck = (route: [number, number][] | undefined): AtWork => {
      const setup: Case['setup'] = {
        ...crane.setup,
        position: { x_m: 30, y_m: -20, heading_deg: 90 },
        standing: { on: 'wheels', ground: null, tyres: null },
      }
      const lift: Case['lift'] = {
        format: 'geolabe.lift/2',
        hung: { ...crane.plan.lift.hung },
        steps: [
          { do: 'drive', laden: true, way: [], ...(route && { route }), height_m: 0.15, facing: 'load-first', speed_mps: 1 },
        ],
      }
      return { id: 'puffin', name: 'Puffin', machine, setup, plan: { ...crane.plan, machine, setup, lift } }
    }
    expect(
      meet(
        [
          crane,
          truck([
            [30, -20],
            [30, 20],
          ]),
        ],
        0.3,
      )[0]?.verdict,
    ).toBe('inside')
    expect(
      meet(
        [
          crane,
          truck([
            [30, -20],
            [8, 0],
            [30, 20],
          ]),
        ],
        0.3,
      )[0],
    ).toMatchObject({ verdict: 'outside' })
    expect(meet([crane, truck(undefined)], 0.3)[0]).toMatchObject({ verdict: 'not-proven', unknown: [{ what: 'no-route' }] })
    // A set-up does not say where a truck stands: one that only stacks is somewhere.
    const stacking = truck(undefined)
    const only: Case['lift'] = {
      ...crane.plan.lift,
      steps: [{ do: 'mast', laden: true, waypoints: [{ height_m: 2, tilt_deg: 0, sideShift_m: 0 }] }],
    }
    expect(meet([crane, { ...stacking, plan: stacking.plan && { ...stacking.plan, lift: only } }], 0.3)[0]).toMatchObject({
      verdict: 'not-proven',
      gap_m: null,
    })
  })

  it('one of them a truck: every point of its turns, and its tail outside of them, is taken', () => {
    const machine = demoMachine('puffin')
    const corners = fc.array(fc.tuple(fc.integer({ min: -30, max: 30 }), fc.integer({ min: -30, max: 30 })), {
      minLength: 2,
      maxLength: 5,
    })
    fc.assert(
      fc.property(corners, (route) => {
        const { plan, setup } = ternAt('tern', facing(0, 270, 90))
        const lift: Case['lift'] = {
          ...plan.lift,
          steps: [{ do: 'drive', laden: true, way: [], route, height_m: 0.15, facing: 'load-first', speed_mps: 1 }],
        }
        const { spaces } = spacesOf({ id: 'p', name: 'Puffin', machine, setup, plan: { ...plan, machine, lift } })
        for (const { at, turning } of drivenLine(place, route)) {
          // Half its width to every side; in a turn as far as its furthest corner.
          const corner_m = turning
            ? Math.max(...machine.outline.plan.flatMap((x) => x.points.map(([x, y]) => Math.hypot(x, y))))
            : 0.5
          const held = spaces.some((s) => planDistance(s.outline, { x_m: at[0], y_m: at[1] }) + corner_m <= s.radius_m + 1e-9)
          expect(held).toBe(true)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('stand on feet outside of their bodies, and reach with a level jib past their trolley', () => {
    const tower = towerCase({ kg: 500, place })
    const cormorant: AtWork = { id: 'c', name: 'c', machine: tower.machine, setup: tower.setup, plan: tower }
    const { spaces } = spacesOf(cormorant)
    const tip = Math.max(
      ...spaces.filter((s) => s.part === 'boom').flatMap((s) => s.outline.points.map((p) => Math.hypot(p.x_m - 30, p.y_m - 30))),
    )
    expect(tip).toBeCloseTo(50, 6)
    const a = ternAt('a', facing(0, 270, 90))
    const idle = { ...a, plan: null }
    for (const foot of ternFeet(a.setup)) {
      const here = toPlace(a.setup.position, foot)
      expect(spacesOf(idle).spaces.some((s) => planDistance(s.outline, here) <= s.radius_m)).toBe(true)
    }
  })

  it('whose boom does not get where its lift goes, or whose plan does not fit it, are not proven, and nobody is told to wait', () => {
    const far = facing(0, 270, 90)
    const beyond = ternAt('a', { ...far, step: { ...far.step, setDown: { radius_m: 60, slew_deg: 90 } } })
    const near = ternAt('b', facing(1, 90, 270))
    expect(meet([beyond, near], 0.3)[0]).toMatchObject({ unknown: [{ who: 'a', what: 'not-reached' }], waiting: [] })
    const misfit = { ...near, setup: { ...near.setup, standing: { on: 'tracks' as const, ground: null } } }
    expect(meet([misfit, ternAt('c', facing(60, 90, 270))], 0.3)[0]).toMatchObject({
      verdict: 'not-proven',
      unknown: [{ who: 'b', what: 'not-worked-out' }],
    })
    const fulmar = demoMachine('fulmar')
    const gantry = { ...near, machine: fulmar, plan: { ...near.plan, machine: fulmar } }
    expect(meet([gantry, ternAt('c', facing(60, 90, 270))], 0.3)[0]?.verdict).toBe('not-proven')
  })
})
