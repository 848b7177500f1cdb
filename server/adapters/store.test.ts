import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, sep } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { exists, incomingDir, keepOriginal, openRanges, pathOf, storeRoot } from './store'

const folder = mkdtempSync(join(tmpdir(), 'karstland-store-'))
beforeAll(() => {
  process.env.STORE_DIR = folder
  mkdirSync(incomingDir(), { recursive: true })
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('the store', () => {
  it('never hands out a path outside itself', () => {
    const part = fc.oneof(fc.constantFrom('..', '.', '/', 'a', '/etc/passwd', '..\\..', 'media/../../..'), fc.string())
    fc.assert(fc.property(fc.array(part, { maxLength: 5 }), (parts) => {
      let path = storeRoot()
      try {
        path = pathOf(...parts)
      } catch (error) {
        expect(String(error)).toMatch(/leads out|null bytes/)
      }
      expect(path === storeRoot() || path.startsWith(storeRoot() + sep)).toBe(true)
    }))
  })

  it('moves a finished upload once; moving it again is no error, losing it is', async () => {
    writeFileSync(join(incomingDir(), 'up1'), 'lecture')
    writeFileSync(join(incomingDir(), 'up1.json'), '{}')
    await keepOriginal('up1', 'originals/r/up1')
    await keepOriginal('up1', 'originals/r/up1')
    expect(readFileSync(pathOf('originals/r/up1'), 'utf8')).toBe('lecture')
    expect(await exists(join(incomingDir(), 'up1.json'))).toBe(false)
    await expect(keepOriginal('never', 'originals/r/never')).rejects.toThrow('ENOENT')
  })

  it('reads ranges up to the end of a file', async () => {
    const file = await openRanges(pathOf('originals/r/up1'))
    expect(file.size).toBe(7)
    expect(Buffer.from(await file.read(3, 100)).toString()).toBe('ture')
    expect((await file.read(7, 10)).length).toBe(0)
    await file.close()
  })
})
