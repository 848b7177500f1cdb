/**
 * The road of a recording to its students, for one filing: filed → released → placed → seen.
 * Says how far along it is and what is missing next.
 */
export const beads = ['filed', 'released', 'placed', 'seen'] as const
export type Bead = typeof beads[number]

export interface RoadFacts {
  /** can be played now */
  playable: boolean
  /** percent made while not yet playable; null when nothing is under way */
  percent: number | null
  /** why it will never play; empty while it may */
  trouble: string
  released: boolean
  /** window of the release, ms; null is open */
  opensAt: number | null
  closesAt: number | null
  /** placements that have been met on a page */
  placements: number
  /** placements copied but never met on a page */
  waitingPlacements: number
  /** people of the class list who watched something of it */
  seenBy: number
}

export interface Road {
  /** one a bead: reached, not yet, or broken there */
  beads: Record<Bead, 'done' | 'open' | 'broken'>
  /** the word beside the beads */
  word: string
  /** the next step towards students; empty when they have arrived */
  next: string
}

/** Where a filing stands at the moment `at` (ms). */
export function roadOf(facts: RoadFacts, at: number): Road {
  const closed = facts.released && facts.closesAt !== null && facts.closesAt <= at
  const filed = facts.trouble ? 'broken' : facts.playable ? 'done' : 'open'
  const released = closed ? 'broken' : facts.released ? 'done' : 'open'
  // Students who came before a placement was taken away have still seen it.
  const placed = facts.placements ? 'done' : 'open'
  const seen = facts.seenBy ? 'done' : 'open'
  return { beads: { filed, released, placed, seen }, ...wordOf(facts, at, closed) }
}

function wordOf(facts: RoadFacts, at: number, closed: boolean): { word: string, next: string } {
  if (facts.trouble) return { word: 'failed', next: facts.trouble }
  if (!facts.playable) return facts.percent === null ? { word: 'not here yet', next: 'the recorder has not sent it' } : { word: `being made, ${facts.percent}%`, next: 'wait until it can be played' }
  if (closed) return { word: 'closed', next: 'open the window again' }
  if (!facts.released) return { word: 'held', next: 'release it to the class list' }
  if (!facts.placements) {
    return { word: 'not placed yet', next: facts.waitingPlacements ? 'the copied code has not been met on a page' : 'place it on a course page' }
  }
  if (facts.opensAt !== null && facts.opensAt > at) return { word: 'opens later', next: 'wait for its window' }
  if (facts.seenBy) return { word: `seen by ${facts.seenBy}`, next: '' }
  return { word: 'not seen yet', next: 'wait for the first viewer' }
}
