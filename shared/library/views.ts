/** What the library routes answer with. Instants are ms since 1970. */
import type { Road } from '~~/core/library/road'

export interface SectionView {
  id: string
  folderId: string
  code: string
  course: string
  number: string
  title: string
  recordings: number
  people: number
  /** may the reader release and place here? */
  teaches: boolean
}

export type RecordingState = 'recording' | 'coming_in' | 'being_made' | 'ready' | 'failed'

export interface FilingView {
  filingId: string
  recordingId: string
  section: string
  name: string
  topic: string
  state: RecordingState
  trouble: string
  seconds: number | null
  start: number | null
  week: string
  weekNumber: number | null
  room: string
  presenter: string
  released: boolean
  opensAt: number | null
  closesAt: number | null
  road: Road
  poster: string | null
}

export interface PlacementView { id: string, kind: 'player' | 'link', copiedAt: number, pageUrl: string | null, metAt: number | null, placedBy: string }

/** One recording for the bench and its own page. */
export interface RecordingView extends FilingView {
  sectionId: string
  sectionTitle: string
  people: number
  seenBy: number
  hasCamera: boolean
  level: SoundLevel | null
  placements: PlacementView[]
  log: { at: number, who: string, what: string }[]
  may: { release: boolean, place: boolean, rename: boolean }
  undertaking: UndertakingView | null
}

/** Loudness over the recording, for drawing and for saying that nothing was heard. */
export interface SoundLevel {
  /** integrated loudness, LUFS; null when silent throughout */
  loudness: number | null
  /** share of the time with sound, 0 to 1 */
  heard: number
  /** loudest moment of each of 120 equal parts, LUFS, −70 for silence */
  shape: number[]
}

export interface UndertakingView {
  id: string
  kind: 'making' | 'import'
  /** null for an import */
  recordingId: string | null
  /** the page of what is under way */
  link: string
  sectionId: string | null
  title: string
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  step: string
  percent: number
  leftS: number | null
  sentence: string
}

/** What a placement answers when its code is asked for. */
export interface PlacementCode { id: string, kind: 'player' | 'link', address: string, html: string, text: string }
