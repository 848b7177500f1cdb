import { describe, expect, it } from 'vitest'
import { recordingName, topicOf } from './name'

const parts = { section: 'HYD-210/01', week: 6, otherwise: '', weekday: 3, topic: '', lectureNumber: 11 }

describe('names of recordings', () => {
  it('uses the topic when there is one, else the lecture number', () => {
    expect(recordingName({ ...parts, topic: ' Darcy’s law ' })).toBe('HYD-210/01, week 6 Wed: Darcy’s law')
    expect(recordingName(parts)).toBe('HYD-210/01, week 6 Wed: lecture 11')
    expect(recordingName({ ...parts, lectureNumber: null })).toBe('HYD-210/01, week 6 Wed: lecture')
  })

  it('names an unnumbered week by its label', () => {
    expect(recordingName({ ...parts, week: null, otherwise: 'Reading week' })).toBe('HYD-210/01, Reading week Wed: lecture 11')
  })

  it('gives the topic back, colons and all', () => {
    expect(topicOf('HYD-210/01, week 6 Wed: Wells: storage and yield')).toBe('Wells: storage and yield')
    expect(topicOf('no colon')).toBe('no colon')
  })
})
