/** Three components; in a frame that stands still: x, y in plan, z up. */
export type Vec = readonly [number, number, number]
/** One that is written over: what moves tick by tick makes nothing new. */
export type Written = [number, number, number]

export const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const size = (a: Vec) => Math.sqrt(dot(a, a))
const apart2 = (a: number, b: number) => (a - b) * (a - b)
export const apart = (a: Vec, b: Vec) => Math.sqrt(apart2(a[0], b[0]) + apart2(a[1], b[1]) + apart2(a[2], b[2]))

/** to = a */
export function put(to: Written, a: Vec): void {
  to[0] = a[0]
  to[1] = a[1]
  to[2] = a[2]
}
/** to = a + by·b; `to` may be one of them. */
export function putSum(to: Written, a: Vec, b: Vec, by: number): void {
  to[0] = a[0] + by * b[0]
  to[1] = a[1] + by * b[1]
  to[2] = a[2] + by * b[2]
}
/** to = to·by */
export function scale(to: Written, by: number): void {
  to[0] *= by
  to[1] *= by
  to[2] *= by
}
/** What of it is along the unit vector n is taken out. */
export const squareTo = (to: Written, n: Vec): void => putSum(to, to, n, -dot(to, n))
