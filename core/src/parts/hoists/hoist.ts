export interface Block {
  name: string
  mass_kg: number
  /** What its hook is marked with, kg. */
  hook_kg: number
}

/** What lifts: a winch with its reevings, each with its block. */
export interface HoistModel {
  readonly parts: readonly number[]
  /** @throws Refusal `unknown-reeving` for a number of parts it cannot be reeved in */
  blockOf: (parts: number) => Block
  /** The greatest mass this many parts of line hold, block and rigging included, kg. */
  limit_kg: (parts: number) => number
}
