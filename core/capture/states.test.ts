import { describe, expect, it } from 'vitest'
import { captureStates, isTrouble, mayFollow, statesBefore } from './states'

describe('the life of a capture', () => {
  it('goes the ordinary way', () => {
    const way = ['planned', 'armed', 'recording', 'coming_in', 'being_made', 'filed'] as const
    way.slice(1).forEach((state, i) => expect(mayFollow(way[i]!, state)).toBe(true))
  })

  it('never goes back from filed to planned, nor from running to left out', () => {
    expect(mayFollow('filed', 'planned')).toBe(false)
    expect(mayFollow('recording', 'left_out')).toBe(false)
  })

  it('lets a recorder that was away still bring what it recorded', () => {
    expect(mayFollow('missed', 'coming_in')).toBe(true)
    expect(mayFollow('planned', 'coming_in')).toBe(true)
  })

  it('has no state that follows itself and none that nothing leads to', () => {
    for (const state of captureStates) {
      expect(mayFollow(state, state)).toBe(false)
      expect(statesBefore(state).length).toBeGreaterThan(0)
    }
  })

  it('asks for a person only at missed and failed', () => {
    expect(captureStates.filter(isTrouble)).toEqual(['missed', 'failed'])
  })
})
