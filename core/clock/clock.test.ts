import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { campusAt, ordinary, realUntil } from './clock'

const setting = fc.record({ realAnchor: fc.integer({ min: 0, max: 2e12 }), campusAnchor: fc.integer({ min: 0, max: 2e12 }), rate: fc.integer({ min: 1, max: 3600 }) })

describe('the campus clock', () => {
  it('is the ordinary clock until it is set', () => {
    expect(campusAt(ordinary, 1_700_000_000_123)).toBe(1_700_000_000_123)
  })

  it('shows its anchor at its anchor and runs at its rate from there', () => {
    fc.assert(fc.property(setting, fc.integer({ min: 0, max: 1e7 }), (clock, later) => {
      expect(campusAt(clock, clock.realAnchor)).toBe(clock.campusAnchor)
      expect(campusAt(clock, clock.realAnchor + later)).toBe(clock.campusAnchor + later * clock.rate)
    }))
  })

  it('knows how long to wait for a moment', () => {
    fc.assert(fc.property(setting, fc.integer({ min: 1, max: 1e9 }), (clock, ahead) => {
      const wait = realUntil(clock, clock.realAnchor, clock.campusAnchor + ahead)
      expect(campusAt(clock, clock.realAnchor + wait)).toBe(clock.campusAnchor + ahead)
    }))
  })

  it('waits for ever while it stands, and not at all for what has been', () => {
    const standing = { realAnchor: 0, campusAnchor: 1000, rate: 0 }
    expect(realUntil(standing, 50, 2000)).toBe(Infinity)
    expect(realUntil(standing, 50, 1000)).toBe(0)
    expect(campusAt(standing, 999_999)).toBe(1000)
  })
})
