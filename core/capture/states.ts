/**
 * The life of a capture, from planned to filed, and which step may follow which.
 *
 * planned → armed → recording → coming in → being made → filed is the ordinary way. A recorder that
 * was out of reach reports late, so missed and armed captures may still come in.
 */
export const captureStates = ['planned', 'armed', 'recording', 'coming_in', 'being_made', 'filed', 'left_out', 'cancelled', 'missed', 'failed'] as const
export type CaptureState = typeof captureStates[number]

/** States in which a capture keeps its room to itself. */
export const roomHolding: readonly CaptureState[] = ['planned', 'armed', 'recording', 'coming_in', 'being_made', 'filed', 'failed', 'missed']

const follows: Record<CaptureState, readonly CaptureState[]> = {
  planned: ['armed', 'recording', 'coming_in', 'left_out', 'cancelled', 'missed'],
  armed: ['planned', 'recording', 'coming_in', 'left_out', 'cancelled', 'missed'],
  recording: ['coming_in', 'being_made', 'failed', 'missed'],
  coming_in: ['being_made', 'failed'],
  being_made: ['filed', 'failed'],
  filed: ['being_made'],
  left_out: ['planned'],
  cancelled: ['planned'],
  missed: ['recording', 'coming_in', 'being_made'],
  failed: ['coming_in', 'being_made'],
}

/** True when a capture in state `from` may go to `to`. */
export function mayFollow(from: CaptureState, to: CaptureState): boolean {
  return follows[from].includes(to)
}

/** The states from which `to` may be reached. */
export function statesBefore(to: CaptureState): CaptureState[] {
  return captureStates.filter((from) => mayFollow(from, to))
}

/** The word for a state, as people read it. */
export const stateWord: Record<CaptureState, string> = {
  planned: 'planned',
  armed: 'armed',
  recording: 'recording',
  coming_in: 'coming in',
  being_made: 'being made',
  filed: 'filed',
  left_out: 'left out',
  cancelled: 'cancelled',
  missed: 'missed',
  failed: 'failed',
}

/** True for the states a person has to look at. */
export function isTrouble(state: CaptureState): boolean {
  return state === 'missed' || state === 'failed'
}
