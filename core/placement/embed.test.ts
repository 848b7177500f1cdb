import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { escapeHtml, lengthWords, linkCode, playerCode } from './embed'

describe('codes for course pages', () => {
  it('keep any title inside its attribute or text', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (title) => {
      for (const code of [playerCode('http://k/e/1', title), linkCode('http://k/e/1', title, 60)]) {
        // Without the escaped entities, quotes and brackets are exactly those of the code itself.
        const bare = (text: string) => text.replace(/[^<>"]/g, '')
        expect(bare(code)).toBe(bare(code.replace(escapeHtml(title), '')))
      }
    }))
  })

  it('name the frame and the link', () => {
    expect(playerCode('http://k/e/1', 'A & B')).toContain('title="A &amp; B"')
    expect(linkCode('http://k/e/1', 'Wells', 3000)).toContain('>Watch the recording: Wells (50 min)</a>')
    expect(linkCode('http://k/e/1', 'Wells', null)).toContain('>Watch the recording: Wells</a>')
  })

  it('say lengths as people do', () => {
    expect([20, 3000, 3600, 4800].map(lengthWords)).toEqual(['under a minute', '50 min', '1 h', '1 h 20 min'])
  })
})
