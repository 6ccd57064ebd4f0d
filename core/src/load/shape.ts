import { Refusal } from '../refusal'

/** Lengths of a part along x, y, z before it is placed, and what it is filled to. All metres. */
export interface Solid {
  /** Volume of material, m³; for a tank the liquid's. */
  volume_m3: number
  box: { x: number; y: number; z: number }
  /** Height of its centre of gravity above the middle of its box. */
  cgAbove_m: number
  /** Faces seen along x and along y, m². */
  sail_m2: { x: number; y: number }
}

export type Shape =
  | { shape: 'box' | 'plate'; length_m: number; width_m: number; height_m: number }
  | { shape: 'cylinder'; diameter_m: number; length_m: number; axis: Axis }
  | { shape: 'tube'; diameter_m: number; wall_m: number; length_m: number; axis: Axis }
  | { shape: 'cone'; diameter_m: number; height_m: number }
  | { shape: 'sphere'; diameter_m: number }
  | { shape: 'tank'; length_m: number; width_m: number; height_m: number; filled_share: number }
  | { shape: 'section'; length_m: number; width_m: number; height_m: number; axis: Axis }
type Axis = 'x' | 'y' | 'z'

const round = (d: number) => (Math.PI * d * d) / 4

function along(axis: Axis, length: number, d: { y: number; z: number }): Solid['box'] {
  if (axis === 'x') return { x: length, y: d.y, z: d.z }
  if (axis === 'y') return { x: d.y, y: length, z: d.z }
  return { x: d.y, y: d.z, z: length }
}
const faces = (box: Solid['box'], axis?: Axis, end?: number) => ({
  x: axis === 'x' && end !== undefined ? end : box.y * box.z,
  y: axis === 'y' && end !== undefined ? end : box.x * box.z,
})

/** Volume, box, centre and faces of one shape. @throws Refusal `wall-too-thick`. */
export function solidOf(s: Shape): Solid {
  switch (s.shape) {
    case 'box':
    case 'plate': {
      const box = { x: s.length_m, y: s.width_m, z: s.height_m }
      return { volume_m3: box.x * box.y * box.z, box, cgAbove_m: 0, sail_m2: faces(box) }
    }
    case 'section': {
      const box = along(s.axis, s.length_m, { y: s.width_m, z: s.height_m })
      return { volume_m3: 0, box, cgAbove_m: 0, sail_m2: faces(box) }
    }
    case 'cylinder':
    case 'tube': {
      const d = s.diameter_m
      const inner = s.shape === 'tube' ? d - 2 * s.wall_m : 0
      if (inner < 0) throw new Refusal('wall-too-thick', 'The wall is thicker than half the diameter.', 'wall_m')
      const box = along(s.axis, s.length_m, { y: d, z: d })
      return {
        volume_m3: (round(d) - round(inner)) * s.length_m,
        box,
        cgAbove_m: 0,
        sail_m2: faces(box, s.axis, round(d)),
      }
    }
    case 'cone': {
      const face = (s.diameter_m * s.height_m) / 2
      return {
        volume_m3: (round(s.diameter_m) * s.height_m) / 3,
        box: { x: s.diameter_m, y: s.diameter_m, z: s.height_m },
        // Base below: a quarter of the height above it.
        cgAbove_m: -s.height_m / 4,
        sail_m2: { x: face, y: face },
      }
    }
    case 'sphere': {
      const d = s.diameter_m
      return {
        volume_m3: (Math.PI * d ** 3) / 6,
        box: { x: d, y: d, z: d },
        cgAbove_m: 0,
        sail_m2: { x: round(d), y: round(d) },
      }
    }
    case 'tank': {
      const box = { x: s.length_m, y: s.width_m, z: s.height_m }
      return {
        volume_m3: box.x * box.y * box.z * s.filled_share,
        box,
        cgAbove_m: -(box.z * (1 - s.filled_share)) / 2,
        sail_m2: faces(box),
      }
    }
  }
}
