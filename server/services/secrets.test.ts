import { beforeAll, describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { grantFor, GRANT_MS, readGrant } from './grants'
import { hashOf, newToken, sign, verify } from './secrets'

beforeAll(() => {
  process.env.MEDIA_SECRET = 'm'.repeat(40)
})

describe('signed strings', () => {
  it('come back whole before their end and not after', () => {
    fc.assert(fc.property(fc.dictionary(fc.stringMatching(/^[a-z]{1,5}$/), fc.string()), fc.integer({ min: 1, max: 1e6 }), (data, expires) => {
      const text = sign(data, expires)
      expect(verify(text, expires - 1)).toEqual({ ...data, expires })
      expect(verify(text, expires)).toBeUndefined()
    }))
  })

  it('are worth nothing when any sign is changed', () => {
    const text = sign({ r: 'recording', p: 'person' }, 1000)
    fc.assert(fc.property(fc.nat(text.length - 1), fc.constantFrom(...'Aa0-_.'), (at, sign) => {
      if (text[at] === sign) return
      // The last sign of base64 may carry bits that mean nothing.
      const changed = text.slice(0, at) + sign + text.slice(at + 1)
      const found = verify<{ r: string }>(changed, 1)
      if (found) expect(found.r).toBe('recording')
      if (at < text.length - 1 && at !== text.indexOf('.') - 1) expect(found).toBeUndefined()
    }))
  })

  it('never throw, whatever the text', () => {
    fc.assert(fc.property(fc.string(), (text) => {
      expect(readGrant(text)).toBeUndefined()
    }))
  })

  it('want a secret worth the name', () => {
    process.env.MEDIA_SECRET = 'short'
    expect(() => sign({}, 1)).toThrow('at least 32')
    process.env.MEDIA_SECRET = 'm'.repeat(40)
  })
})

describe('grants', () => {
  it('name recording, person and session, and last a few minutes', () => {
    const { base, expires, renewMs } = grantFor('r1', 'p1', 's1')
    expect(readGrant(base.slice('/media/'.length))).toEqual({ recordingId: 'r1', personId: 'p1', sessionId: 's1' })
    expect(expires - Date.now()).toBeGreaterThanOrEqual(GRANT_MS)
    expect(expires - Date.now()).toBeLessThanOrEqual(GRANT_MS + 60_000)
    expect(renewMs).toBeLessThan(GRANT_MS / 2)
  })

  it('are alike within a minute, so that the browser’s cache works', () => {
    const minute = Math.ceil(Date.now() / 60_000)
    const [a, b] = [grantFor('r', 'p', 's'), grantFor('r', 'p', 's')]
    if (Math.ceil(Date.now() / 60_000) === minute) expect(a.base).toBe(b.base)
  })
})

it('tokens are long, different, and kept as hashes', () => {
  const tokens = Array.from({ length: 100 }, newToken)
  expect(new Set(tokens).size).toBe(100)
  expect(tokens.every((t) => t.length >= 43)).toBe(true)
  expect(hashOf(tokens[0]!)).not.toContain(tokens[0]!)
  expect(hashOf('a')).toBe(hashOf('a'))
})
