/** What a room can take in; the same words on screen and in calendars. */
export const inputKinds = ['sound', 'lectern screen', 'room camera', 'document camera'] as const
export type InputKind = typeof inputKinds[number]
