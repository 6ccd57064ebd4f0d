// A worker begins as plain JavaScript; this loads the TypeScript behind it.
import { tsImport } from 'tsx/esm/api'

const { default: work } = await tsImport('./calc.worker.ts', import.meta.url)
export default work
