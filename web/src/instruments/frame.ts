import type { Point } from '@geolabe/core'

/** Plan to paper: the machine's nose points up, its left is left. Metres either way. */
export const onPaper = (p: Point): [number, number] => [-p.y_m, -p.x_m]
export const fromPaper = (sx: number, sy: number): Point => ({ x_m: -sy, y_m: -sx })

export const pathOf = (points: readonly Point[], close = true) =>
  points
    .map(
      (p, i) =>
        `${i === 0 ? 'M' : 'L'}${onPaper(p)
          .map((v) => v.toFixed(3))
          .join(' ')}`,
    )
    .join('') + (close ? 'Z' : '')

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
