import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { hoursFor, placeAt, snapped, stepped, widthOf, xOf, type Geometry } from './geometry'

const g: Geometry = { dates: ['2026-11-09', '2026-11-10', '2026-11-11'], from: 480, to: 1140, dayWidth: 220, rowHeight: 30 }

describe('the board’s geometry', () => {
  it('leads from a time to a point and back', () => {
    fc.assert(fc.property(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 480, max: 1139 }), fc.integer({ min: 0, max: 9 }), (day, minutes, row) => {
      const place = placeAt(g, xOf(g, day, minutes), row * 30 + 3, 10)
      expect([place.day, Math.round(place.minutes), place.row]).toEqual([day, minutes, row])
    }))
  })

  it('keeps points outside within the field', () => {
    expect(placeAt(g, -50, 9999, 10)).toEqual({ day: 0, minutes: 480, row: 9 })
    expect(placeAt(g, 99999, -1, 10)).toMatchObject({ day: 2, minutes: 1140, row: 0 })
  })

  it('snaps to the usual starts and steps from one to the next', () => {
    expect([snapped(607, [0, 30]), snapped(620, [0, 30]), snapped(659, [5])]).toEqual([600, 630, 665])
    expect([stepped(600, [0, 30], 1), stepped(600, [0, 30], -1), stepped(605, [0, 30], -1)]).toEqual([630, 570, 600])
  })

  it('shows more hours when captures need them', () => {
    expect(hoursFor([])).toEqual({ from: 480, to: 1080 })
    expect(hoursFor([{ from: 450, to: 1145 }])).toEqual({ from: 420, to: 1200 })
    expect(widthOf(g, 660)).toBe(214)
  })
})
