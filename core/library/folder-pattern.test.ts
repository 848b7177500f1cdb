import { expect, it } from 'vitest'
import { folderName, unknownParts } from './folder-pattern'

const parts = { week: 6, weekLabel: 'Wk 6', weekday: 'Wed', course: 'HYD-210', section: '01' }

it('fills a folder’s pattern, and names an unnumbered week by its label', () => {
  expect(folderName('Week {week}', parts)).toBe('Week 6')
  expect(folderName('{course}: {weekday},  week {week}', parts)).toBe('HYD-210: Wed, week 6')
  expect(folderName('Week {week}', { ...parts, week: null, weekLabel: 'Reading' })).toBe('Reading')
  expect(folderName('All', parts)).toBe('All')
})

it('knows which parts nobody knows', () => {
  expect(unknownParts('Week {week} {colour} {}')).toEqual(['colour', ''])
})
