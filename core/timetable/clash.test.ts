import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { clashesWith, overlap, type Span } from './clash'

const minute = 60_000
const at = (from: number, to: number): Span => ({ start: from * minute, end: to * minute })
const span = fc.tuple(fc.integer({ min: 0, max: 600 }), fc.integer({ min: 1, max: 120 })).map(([from, length]) => at(from, from + length))

describe('clashes in a room', () => {
  it('lets captures touch when the room needs no turnaround', () => {
    expect(overlap(at(0, 50), at(50, 100))).toBe(false)
    expect(clashesWith(at(50, 100), [at(0, 50)], 0)).toEqual([])
  })

  it('counts the turnaround on both sides', () => {
    expect(clashesWith(at(52, 100), [at(0, 50)], 5)).toHaveLength(1)
    expect(clashesWith(at(0, 50), [at(52, 100)], 5)).toHaveLength(1)
    expect(clashesWith(at(55, 100), [at(0, 50)], 5)).toHaveLength(0)
  })

  it('is symmetrical and agrees with a minute-by-minute walk', () => {
    fc.assert(fc.property(span, span, (a, b) => {
      const minutesOf = (s: Span) => new Set(Array.from({ length: (s.end - s.start) / minute }, (_, i) => s.start / minute + i))
      const shared = [...minutesOf(a)].some((m) => minutesOf(b).has(m))
      expect(overlap(a, b)).toBe(shared)
      expect(overlap(b, a)).toBe(shared)
    }))
  })
})
