import { createRequire } from 'node:module'

const require = createRequire(import.meta.url)
const font = (family: string, weight: number) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`)

/** The faces and inks of everything that is printed. */
export const regular = font('atkinson-hyperlegible-next', 400)
export const bold = font('atkinson-hyperlegible-next', 700)
export const mono = font('atkinson-hyperlegible-mono', 500)
export const ink = '#15243a'
export const quiet = '#4a5568'
