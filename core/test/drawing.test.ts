import { expect, it } from 'vitest'
import { planDrawing, svgOf, toPlace } from '../src'
import { northQuay, tern, ternFeet, ternLift, ternSetup } from './demo'

it('a plan as SVG is a millimetre a unit and as large as it says, its words escaped', () => {
  const setup = ternSetup()
  const title = 'Tern <at> "North & Quay"'
  const svg = svgOf(planDrawing({ machine: tern, place: northQuay, setup, lift: ternLift(), title }))
  const [, width, height, box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([^"]+)"/.exec(svg) ?? []
  const [, , w, h] = (box ?? '').split(' ')
  expect([w, h]).toEqual([width, height])
  expect(svg).toContain('<title>Tern &#60;at&#62; &#34;North &#38; Quay&#34;</title>')
  const drawn = [...(/<g id="OUTRIGGERS">(.*?)<\/g>/s.exec(svg)?.[1] ?? '').matchAll(/<circle cx="(.*?)" cy="(.*?)"/g)]
  const feet = ternFeet(setup)
  expect(drawn).toHaveLength(feet.length)
  feet.forEach((foot, i) => {
    const on = toPlace(setup.position, foot)
    expect(Number(drawn[i]?.[1])).toBeCloseTo(on.x_m * 1000, 2)
    expect(Number(drawn[i]?.[2])).toBeCloseTo(-on.y_m * 1000, 2)
  })
})
