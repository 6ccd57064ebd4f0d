/** Three components; in a frame that stands still: x, y in plan, z up. */
export type Vec = readonly [number, number, number]

export const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
/** a + by·b */
export const add = (a: Vec, b: Vec, by = 1): Vec => [a[0] + by * b[0], a[1] + by * b[1], a[2] + by * b[2]]
export const times = (a: Vec, by: number): Vec => [by * a[0], by * a[1], by * a[2]]
export const size = (a: Vec) => Math.sqrt(dot(a, a))
/** What of a is not along the unit vector n. */
export const across = (a: Vec, n: Vec): Vec => add(a, n, -dot(a, n))
