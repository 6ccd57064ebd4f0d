import type { Point } from '@geolabe/core'
import { type CurveFactory, curveLinear, curveLinearClosed, line } from 'd3-shape'
import type { CSSProperties } from 'react'

/** Plan to paper: the machine's nose points up, its left is left. Metres either way. */
export const onPaper = (p: Point): [number, number] => [-p.y_m, -p.x_m]
export const fromPaper = (sx: number, sy: number): Point => ({ x_m: -sy, y_m: -sx })

/** A line through points of the plan, on paper, to the millimetre. */
const drawn = (curve: CurveFactory) =>
  line<Point>()
    .x((p) => onPaper(p)[0])
    .y((p) => onPaper(p)[1])
    .curve(curve)
    .digits(3)
const open = drawn(curveLinear)
const closed = drawn(curveLinearClosed)

export const pathOf = (points: readonly Point[], close = true): string => (close ? closed : open)(points) ?? ''

export const pairPath = (points: readonly (readonly [number, number])[]) => pathOf(points.map(([x_m, y_m]) => ({ x_m, y_m })))

/** SVG rotation that turns the drawn machine anticlockwise seen from above. */
export const turned = (slew_deg: number) => `rotate(${-slew_deg})`

/** Where a finger or pointer is on a drawing in metres; null while it is not laid out. */
export function underFinger(drawn: SVGGraphicsElement | null, [x, y]: readonly [number, number]): Point | null {
  const matrix = drawn?.ownerSVGElement?.getScreenCTM()
  if (!matrix) return null
  const p = new DOMPoint(x, y).matrixTransform(matrix.inverse())
  return fromPaper(p.x, p.y)
}

/** So far out that what a machine stands on fills its share of a drawing, metres from the slew centre. */
export const aroundFeet = (feet: readonly Point[], share: number) =>
  Math.max(3, share * Math.max(...feet.map((f) => Math.hypot(f.x_m, f.y_m))))

/** How large the letters of a drawing are, in its own metres; they grow where the drawing is small. */
export const letters = (size_m: number) => ({ '--letters': `${size_m}px` }) as CSSProperties
