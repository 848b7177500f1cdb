import { describe, expect, it } from 'vitest'
import { roadOf, type RoadFacts } from './road'

const facts: RoadFacts = { playable: true, percent: null, trouble: '', released: true, opensAt: null, closesAt: null, placements: 1, waitingPlacements: 0, seenBy: 0 }
const word = (change: Partial<RoadFacts>) => roadOf({ ...facts, ...change }, 100).word

describe('the road to students', () => {
  it('says the first thing that is missing', () => {
    expect(word({ playable: false, percent: 62 })).toBe('being made, 62%')
    expect(word({ playable: false })).toBe('not here yet')
    expect(word({ released: false, placements: 0 })).toBe('held')
    expect(word({ placements: 0 })).toBe('not placed yet')
    expect(word({ opensAt: 101 })).toBe('opens later')
    expect(word({})).toBe('not seen yet')
    expect(word({ seenBy: 3 })).toBe('seen by 3')
  })

  it('is broken where it failed or closed', () => {
    expect(roadOf({ ...facts, trouble: 'not a recording' }, 100)).toMatchObject({ beads: { filed: 'broken' }, next: 'not a recording' })
    expect(roadOf({ ...facts, closesAt: 100 }, 100)).toMatchObject({ beads: { released: 'broken' }, word: 'closed' })
  })

  it('keeps apart a code that was copied and one that was met on a page', () => {
    expect(roadOf({ ...facts, placements: 0, waitingPlacements: 1 }, 100).next).toMatch(/not been met/)
    expect(roadOf({ ...facts, placements: 0 }, 100).next).toMatch(/place it/)
  })
})
