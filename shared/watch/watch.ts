/** Watching: what the player asks for and tells. No validator here: this reaches the viewer's page. */

/** Where the pictures lie, for a few minutes; `renewMs` before then a new grant is asked for. */
export interface Grant { base: string, expires: number, renewMs: number }

export interface WatchView {
  recordingId: string
  name: string
  section: string
  when: string
  room: string
  presenter: string
  state: 'recording' | 'coming_in' | 'being_made' | 'ready' | 'failed'
  /** what a person is told while it cannot be played yet */
  waiting: string
  percent: number | null
  seconds: number | null
  hasCamera: boolean
  hasPicture: boolean
  resumeAt: number
  grant: Grant | null
}

/** What a frame or the watch page shows instead of a player. */
export interface Refused { say: 'sign-in' | 'told' | 'hidden', title: string, advice: string }
