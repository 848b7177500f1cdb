import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { captureStates } from '~~/core/capture/states'
import { lookOf, signOf } from './capture-look'
import { clockLength, dateWords, momentWords, pageWords, plural } from './words'

describe('words', () => {
  it('say dates with their weekday', () => {
    expect(dateWords('2026-11-11')).toBe('Wed 11 Nov')
    expect(dateWords('2027-02-28')).toBe('Sun 28 Feb')
    expect(momentWords('Europe/London', Date.UTC(2026, 6, 1, 9, 5))).toBe('Wed 1 Jul 10:05')
  })

  it('say lengths as a clock does', () => {
    expect([null, 0, 9.6, 61, 3130, 3730].map(clockLength)).toEqual(['', '00:00', '00:10', '01:01', '52:10', '1:02:10'])
    fc.assert(fc.property(fc.nat(360_000), (seconds) => {
      const parts = clockLength(seconds).split(':').map(Number)
      expect(parts.reduce((sum, p) => sum * 60 + p, 0)).toBe(seconds)
    }))
  })

  it('count in the singular and the plural, thousands apart', () => {
    expect([plural(1, 'capture'), plural(0, 'capture'), plural(1148, 'capture'), plural(2, 'person', 'people')]).toEqual(['1 capture', '0 captures', '1 148 captures', '2 people'])
    expect(pageWords('https://courses.example/p/1')).toBe('courses.example/p/1')
  })
})

describe('the look of states', () => {
  it('differs by shape for every state that is no end', () => {
    const shapes = captureStates.map((s) => lookOf(s).split(' ').filter((c) => /^border-(solid|dashed|dotted)$|^hatched$|^bg-|line-through/.test(c)).join(' ') + signOf(s))
    const living = captureStates.slice(0, 6).map((_, i) => shapes[i])
    expect(new Set(living).size).toBe(living.length)
  })

  it('marks trouble with a triangle and recording with a dot', () => {
    expect(signOf('missed')).toBe('▲ ')
    expect(signOf('failed')).toBe('▲ ')
    expect(signOf('recording')).toBe('● ')
    expect(signOf('filed')).toBe('')
  })
})
