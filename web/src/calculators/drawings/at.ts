/** Metres, x to the right and y up: turned over for the screen only where it is drawn. */
export type At = readonly [x: number, y: number]
