export interface Block {
  name: string
  mass_kg: number
  /** What its hook is marked with, kg. */
  hook_kg: number
  /** From the boom's head down to the hook when the hook stop works, metres. */
  leastDrop_m?: number | undefined
}

/** What lifts: a winch with its reevings, each with its block. */
export interface HoistModel {
  readonly parts: readonly number[]
  readonly hookStop: 'trips' | 'stalls'
  /**
   * Parts of line, as a set-up says.
   * @throws Refusal `unknown-reeving` where it says none, or a number that it cannot be reeved in
   */
  reevedIn: (parts: number | undefined) => number
  /** @throws Refusal `unknown-reeving` */
  blockOf: (parts: number) => Block
  /** The greatest mass this many parts of line hold, block and rigging included, kg. */
  limit_kg: (parts: number) => number
}
