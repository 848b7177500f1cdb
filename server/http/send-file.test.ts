import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { rangeOf } from './send-file'

describe('byte ranges', () => {
  it.each([
    ['bytes=0-99', { start: 0, end: 99 }], ['bytes=900-', { start: 900, end: 999 }], ['bytes=-100', { start: 900, end: 999 }],
    ['bytes=990-5000', { start: 990, end: 999 }], ['bytes=1000-', 'outside'], ['bytes=-0', 'outside'],
    ['bytes=5-2', 'whole'], ['bytes=0-1,5-6', 'whole'], ['lines=1-2', 'whole'], [undefined, 'whole'], ['bytes=-', 'whole'],
  ])('%s', (header, wanted) => {
    expect(rangeOf(header, 1000)).toEqual(wanted)
  })

  it('never reach beyond the file', () => {
    fc.assert(fc.property(fc.nat(), fc.option(fc.nat()), fc.integer({ min: 1, max: 10_000 }), (from, to, size) => {
      const range = rangeOf(`bytes=${from}-${to ?? ''}`, size)
      if (typeof range === 'object') {
        expect(range.start).toBeLessThanOrEqual(range.end)
        expect(range.end).toBeLessThan(size)
      }
    }))
  })
})
