import { planDrawing, supportOf, svgOf, toPlace } from '@geolabe/core'
import DxfParser, { type ICircleEntity, type ILwpolylineEntity } from 'dxf-parser'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { northQuay, tern, ternLift, ternSetup } from '../../core/test/demo'
import { dxfOf } from '../src/card/plan'

const near_mm = (a: { x: number; y: number }, b: { x_m: number; y_m: number }) =>
  Math.hypot(a.x - b.x_m * 1000, a.y - b.y_m * 1000)

const position = fc.record({
  x_m: fc.double({ min: -500, max: 500, noNaN: true }),
  y_m: fc.double({ min: -500, max: 500, noNaN: true }),
  heading_deg: fc.double({ min: -720, max: 720, noNaN: true }),
})
const ends = fc.record({
  radius_m: fc.double({ min: 3, max: 20, noNaN: true }),
  slew_deg: fc.double({ min: 0, max: 360, noNaN: true }),
})

it('a plan read back by another reader has outriggers, mats and load where they are, to a millimetre', () => {
  fc.assert(
    fc.property(position, ends, ends, (at, pickUp, setDown) => {
      const setup = { ...ternSetup({ left: 'intermediate' }), position: at }
      const lift = ternLift({ pickUp, setDown })
      const read = new DxfParser().parseSync(
        dxfOf(planDrawing({ machine: tern, place: northQuay, setup, lift, title: 'a plan' })),
      )
      if (!read) throw new Error('nothing was read')
      // 4: millimetres.
      expect(read.header.$INSUNITS).toBe(4)
      const circles = (layer: string) =>
        read.entities.filter((e): e is ICircleEntity => e.type === 'CIRCLE' && e.layer === layer).map((e) => e.center)
      const feet = supportOf(tern, setup.standing).contacts
      expect(circles('OUTRIGGERS')).toHaveLength(feet.length)
      for (const foot of feet) {
        const on = toPlace(at, foot)
        expect(Math.min(...circles('OUTRIGGERS').map((c) => near_mm(c, on)))).toBeLessThan(1)
      }
      for (const { radius_m, slew_deg } of [pickUp, setDown]) {
        const a = (slew_deg * Math.PI) / 180
        const on = toPlace(at, { x_m: radius_m * Math.cos(a), y_m: radius_m * Math.sin(a) })
        expect(Math.min(...circles('LOAD').map((c) => near_mm(c, on)))).toBeLessThan(1)
      }
      const mats = read.entities.filter((e): e is ILwpolylineEntity => e.type === 'LWPOLYLINE' && e.layer === 'MATS')
      expect(mats).toHaveLength(4)
      for (const { vertices, shape } of mats) {
        expect(shape).toBe(true)
        const [a, b, c] = vertices
        if (!a || !b || !c) throw new Error('no corners')
        const sides_mm = [Math.hypot(b.x - a.x, b.y - a.y), Math.hypot(c.x - b.x, c.y - b.y)]
        for (const side of sides_mm) expect(Math.abs(side - 1200)).toBeLessThan(0.01)
      }
    }),
    { numRuns: 40 },
  )
})

it('what is not there is no layer: a set-up without a lift has no path, a load without a size no outline', () => {
  const setup = ternSetup()
  const bare = planDrawing({ machine: tern, place: { ...northQuay, features: [] }, setup, lift: null, title: '' })
  expect(bare.layers.map((l) => l.name)).toEqual(['MACHINE', 'OUTRIGGERS', 'MATS', 'TAIL'])
  const lifted = planDrawing({ machine: tern, place: northQuay, setup, lift: ternLift(), title: '' })
  expect(lifted.layers.find((l) => l.name === 'LOAD')?.strokes.filter((s) => s.kind === 'line')).toEqual([])
})

it('whatever somebody called the load, the plan is read back whole and says it on one line', () => {
  const breaks = fc.constantFrom('\n', '\r\n', '\t', '\u2028', '\u0000', '  0\nSECTION\n', 'é', '漢', '°')
  fc.assert(
    fc.property(fc.array(fc.oneof(breaks, fc.string()), { maxLength: 6 }), (parts) => {
      const name = parts.join('')
      const base = ternLift()
      const lift = { ...base, hung: { ...base.hung, load: { ...base.hung.load, name } } }
      const drawing = planDrawing({ machine: tern, place: northQuay, setup: ternSetup(), lift, title: name })
      const read = new DxfParser().parseSync(dxfOf(drawing))
      const strokes = drawing.layers.reduce((n, l) => n + l.strokes.length, 0)
      expect(read?.entities).toHaveLength(strokes)
      // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is looked for
      expect(svgOf(drawing).replaceAll('\n<', '<').replaceAll('>\n', '>')).not.toMatch(/[\u0000-\u001f\u2028]/)
    }),
    { numRuns: 60 },
  )
})
