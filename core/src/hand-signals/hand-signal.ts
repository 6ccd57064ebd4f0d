/** Hand signals as they are agreed before a lift. */
export const signalIds = ['attention', 'hoist', 'lower', 'right', 'left', 'stop', 'emergency', 'end'] as const
export type SignalId = (typeof signalIds)[number]

/** Those for a boom or a trolley, where the machine has one; and for less speed. */
export const boomSignalIds = ['boom-up', 'boom-down', 'out', 'in', 'slow'] as const
/** Everything that can be asked of an operator. */
export type AskedSignal = SignalId | (typeof boomSignalIds)[number]

/** What can be drawn of a signal: those, and forward and back for what travels as it is signalled. */
export const drawnSignals = [...signalIds, ...boomSignalIds, 'forward', 'back'] as const
export type DrawnSignal = (typeof drawnSignals)[number]
