/** Σηⁱ over n parts of line, (1−ηⁿ)/(1−η): how many times the lead line's force a reeving gives. */
export function lineSum(parts: number, sheaveEfficiency: number): number {
  const e = sheaveEfficiency
  return Math.abs(e - 1) <= 1e-9 ? parts : (1 - e ** parts) / (1 - e)
}
