/** How far out an outrigger stands, as said in a sentence. */
const beams: Record<string, string> = { retracted: 'retracted', intermediate: 'to the middle', fullyExtended: 'fully out' }

/** @param label as its stop is called, where it is none of a beam's */
export const stopWords = (id: string, label: string): string => beams[id] ?? `at ${label}`
