/** What an edge drops in, as far as it holds a foot near it. */
export const edgeSoils = ['firm', 'loose', 'wet'] as const
/** What stands in an edge: beside it no rule of thumb holds. */
export const edgeStructures = ['none', 'wall', 'void', 'culvert'] as const
