import { boxOf, type PlanDrawing, type Stroke } from './drawing'

const escaped = (words: string) => words.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
const mm = (m: number) => String(Math.round(m * 1e6) / 1e3)

function stroke(s: Stroke): string {
  if (s.kind === 'circle') return `<circle cx="${mm(s.centre.x_m)}" cy="${mm(-s.centre.y_m)}" r="${mm(s.radius_m)}"/>`
  if (s.kind === 'text') {
    return `<text x="${mm(s.at.x_m)}" y="${mm(-s.at.y_m)}" font-size="${mm(s.height_m)}" fill="#000" stroke="none">${escaped(s.words)}</text>`
  }
  const points = s.points.map((p) => `${mm(p.x_m)},${mm(-p.y_m)}`).join(' ')
  return s.closed ? `<polygon points="${points}"/>` : `<polyline points="${points}"/>`
}

/**
 * A plan as SVG, one unit a millimetre and its size given in millimetres: true to scale in whatever reads it. Each layer is a group
 * under its own name.
 */
export function svgOf(d: PlanDrawing): string {
  const { least, most } = boxOf(d)
  const rim_m = 1
  const [width_m, height_m] = [most.x_m - least.x_m + 2 * rim_m, most.y_m - least.y_m + 2 * rim_m]
  const box = [least.x_m - rim_m, -most.y_m - rim_m, width_m, height_m].map(mm).join(' ')
  const layers = d.layers.map((l) => `<g id="${escaped(l.name)}">${l.strokes.map(stroke).join('')}</g>`)
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width_m)}mm" height="${mm(height_m)}mm" viewBox="${box}">`,
    `<title>${escaped(d.title)}</title>`,
    '<g fill="none" stroke="#000" stroke-width="20" font-family="sans-serif">',
    ...layers,
    '</g></svg>',
  ].join('\n')
}
