import type { Extension } from '../parts/supports/outriggers'

/** How far out an outrigger stands, as said in a sentence. */
export const stopWords: Record<Extension, string> = {
  retracted: 'retracted',
  intermediate: 'to the middle',
  fullyExtended: 'fully out',
}
