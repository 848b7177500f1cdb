import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { coverage, covered, resumeAt, union, type Seconds } from './spans'

const span = fc.tuple(fc.integer({ min: -10, max: 200 }), fc.integer({ min: -10, max: 200 })) as fc.Arbitrary<Seconds>

describe('watched spans', () => {
  it('join, sort and drop what is empty or backward', () => {
    expect(union([[30, 40], [0, 10], [9, 12], [5, 5], [8, 2]])).toEqual([[0, 12], [30, 40]])
  })

  it('are cut to the recording', () => {
    expect(union([[-5, 4], [90, 120]], 100)).toEqual([[0, 4], [90, 100]])
    expect(coverage([[-5, 500]], 100)).toBe(1)
    expect(coverage([[0, 5]], 0)).toBe(0)
  })

  it('agree with marking every second, in any order, and twice changes nothing', () => {
    fc.assert(fc.property(fc.array(span, { maxLength: 12 }), (spans) => {
      const seen = new Set<number>()
      for (const [from, to] of spans) for (let s = Math.max(0, from); s < Math.min(150, to); s++) seen.add(s)
      const joined = union(spans, 150)
      expect(covered(joined)).toBe(seen.size)
      expect(union([...joined, ...[...spans].reverse()], 150)).toEqual(joined)
    }))
  })

  it('go on where one stopped, but not at the very end or start', () => {
    expect(resumeAt(600, 3000)).toBe(600)
    expect(resumeAt(2, 3000)).toBe(0)
    expect(resumeAt(2995, 3000)).toBe(0)
  })
})
