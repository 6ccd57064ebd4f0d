/** An answer: how sure it was, as a share, and whether it was right. */
export interface Sureness {
  sure: number
  right: boolean
}

/** How sure somebody is against how right they are. */
export interface Calibration {
  count: number
  /** Mean of the squared distance from how sure to what it was: nought is perfect. */
  brier: number
  /** How far each band of sureness is from how right it was. */
  reliability: number
  /** How far the bands differ in how right they were. */
  resolution: number
  /** What any answers as often right would have. */
  uncertainty: number
  /** Surer than right: positive. */
  bias: number
}

/** Below this many answers it says nothing. */
export const calibrationFrom = 20

/**
 * How sure answers were against how right, with its parts: brier = reliability − resolution + uncertainty.
 *
 * @param answers each band is one value of `sure`
 * @returns null where there are none
 * @example calibrationOf([{ sure: 1, right: true }, { sure: 1, right: false }])?.bias // 0.5
 */
export function calibrationOf(answers: readonly Sureness[]): Calibration | null {
  const count = answers.length
  if (count === 0) return null
  const mean = (of: readonly Sureness[], what: (a: Sureness) => number) => of.reduce((sum, a) => sum + what(a), 0) / of.length
  const came = (a: Sureness) => (a.right ? 1 : 0)
  const all = mean(answers, came)
  const bands = new Map<number, Sureness[]>()
  for (const a of answers) bands.set(a.sure, [...(bands.get(a.sure) ?? []), a])
  let [reliability, resolution] = [0, 0]
  for (const [sure, band] of bands) {
    const share = band.length / count
    const right = mean(band, came)
    reliability += share * (sure - right) ** 2
    resolution += share * (right - all) ** 2
  }
  return {
    count,
    brier: mean(answers, (a) => (a.sure - came(a)) ** 2),
    reliability,
    resolution,
    uncertainty: all * (1 - all),
    bias: mean(answers, (a) => a.sure) - all,
  }
}
