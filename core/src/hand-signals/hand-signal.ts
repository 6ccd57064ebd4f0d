/** Hand signals as they are agreed before a lift. */
export const signalIds = ['attention', 'hoist', 'lower', 'right', 'left', 'stop', 'emergency', 'end'] as const
export type SignalId = (typeof signalIds)[number]

/** What can be drawn of a signal: those, and forward and back for what travels as it is signalled. */
export const drawnSignals = [...signalIds, 'forward', 'back'] as const
export type DrawnSignal = (typeof drawnSignals)[number]
