/** Pieces that several worked examples share. Made up. */
export const sampleLegs = [
  { id: 'front-left', x_m: 2.9, y_m: 2.8 },
  { id: 'front-right', x_m: 2.9, y_m: -2.8 },
  { id: 'rear-right', x_m: -2.7, y_m: -2.8 },
  { id: 'rear-left', x_m: -2.7, y_m: 2.8 },
]

export const sampleTableHead = {
  format: 'geolabe.table/1' as const,
  id: 'example',
  machine: 'example',
  title: 'Made up, for this example',
  revision: 1,
  enteredBy: 'example',
  document: 'example',
  checkedBy: null,
}

const neighbours = 'neighbours' as const
/** Boom lengths over radii. */
export const sampleBoomAxes = {
  row: { quantity: 'radius_m' as const, label: 'Radius', reading: neighbours, trend: 'falls' as const },
  column: { quantity: 'boom_m' as const, label: 'Boom', reading: neighbours, trend: null },
}
