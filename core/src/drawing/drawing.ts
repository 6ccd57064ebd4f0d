import type { Point } from '../plane/point'

/** One thing drawn, metres in the place's own frame: x east, y north of its origin. */
export type Stroke =
  | { kind: 'line'; points: readonly Point[]; closed: boolean }
  | { kind: 'circle'; centre: Point; radius_m: number }
  | { kind: 'text'; at: Point; words: string; height_m: number }

/** What is drawn together, and can be switched off together. */
export interface DrawingLayer {
  name: string
  strokes: readonly Stroke[]
}

/** A plan true to scale, by layers; from it come SVG, DXF and the page that is printed. */
export interface PlanDrawing {
  title: string
  layers: readonly DrawingLayer[]
}

/** The corners of the box that everything lies in, metres. Words count by where they begin; there is at least one stroke. */
export function boxOf(d: PlanDrawing): { least: Point; most: Point } {
  const points = d.layers.flatMap((l) =>
    l.strokes.flatMap((s) => {
      if (s.kind === 'line') return s.points
      if (s.kind === 'text') return [s.at]
      const { x_m, y_m } = s.centre
      return [
        { x_m: x_m - s.radius_m, y_m: y_m - s.radius_m },
        { x_m: x_m + s.radius_m, y_m: y_m + s.radius_m },
      ]
    }),
  )
  const [xs, ys] = [points.map((p) => p.x_m), points.map((p) => p.y_m)]
  return {
    least: { x_m: Math.min(...xs), y_m: Math.min(...ys) },
    most: { x_m: Math.max(...xs), y_m: Math.max(...ys) },
  }
}
