import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { decide, rolesIn, type Action, type Membership, type Question, type Release, type Thing, type Way, type Who } from './decide'
import { refusalSentence } from './sentence'

const now = 1_000_000
const member = (role: Membership['role'], from: number | null = null, to: number | null = null): Membership => ({ sectionId: 'hyd', role, from, to })
const person = (role: 'staff' | 'instructor' | 'student', ...memberships: Membership[]): Who => ({ kind: 'person', id: 'p', role, memberships })
const recording = (...releases: (Release | null)[]): Thing => ({ kind: 'recording', ownerIds: ['owner'], filings: releases.map((release) => ({ sectionId: 'hyd', release })) })
const open: Release = { opensAt: null, closesAt: null }
const ask = (who: Who, thing: Thing, action: Action = 'watch', way: Way = 'address') => decide({ who, thing, action, at: now, way })

describe('watching', () => {
  it('is for the class list once released', () => {
    expect(ask(person('student', member('student')), recording(open))).toEqual({ allowed: true, reasons: ['class-list', 'released'] })
  })

  it('hides a held recording at its address and explains it through a placement', () => {
    const student = person('student', member('student'))
    expect(ask(student, recording(null))).toMatchObject({ allowed: false, say: 'hidden', reasons: ['class-list', 'held'] })
    expect(ask(student, recording(null), 'watch', 'placement')).toMatchObject({ say: 'told' })
  })

  it('asks a stranger to sign in and tells a student of another class why not', () => {
    expect(ask({ kind: 'nobody' }, recording(open))).toMatchObject({ say: 'sign-in' })
    expect(ask(person('student'), recording(open), 'watch', 'placement')).toMatchObject({ say: 'told', reasons: ['not-on-class-list'] })
    expect(ask(person('student'), recording(open))).toMatchObject({ say: 'hidden' })
  })

  it('keeps to the window, its end not included', () => {
    const student = person('student', member('student'))
    expect(ask(student, recording({ opensAt: now + 1, closesAt: null }))).toMatchObject({ reasons: ['class-list', 'not-open-yet'], opensAt: now + 1 })
    expect(ask(student, recording({ opensAt: null, closesAt: now }))).toMatchObject({ reasons: ['class-list', 'closed'] })
    expect(ask(student, recording({ opensAt: now, closesAt: now + 1 })).allowed).toBe(true)
  })

  it('takes the most generous of several filings', () => {
    expect(ask(person('student', member('student')), recording(null, open)).allowed).toBe(true)
  })

  it('ends with the place on the class list', () => {
    expect(ask(person('student', member('student', null, now)), recording(open)).allowed).toBe(false)
    expect(rolesIn([member('student', now, null)], 'hyd', now)).toEqual(['student'])
  })

  it('shows what is held to those who teach the section', () => {
    expect(ask(person('instructor', member('instructor')), recording(null)).allowed).toBe(true)
    expect(ask(person('student', member('assistant')), recording(null)).allowed).toBe(true)
  })
})

describe('working on a recording', () => {
  it('is for owners, the section’s instructors and the team', () => {
    for (const action of ['release', 'place', 'rename'] as const) {
      expect(ask(person('instructor', member('instructor')), recording(null), action).allowed).toBe(true)
      expect(ask({ kind: 'person', id: 'owner', role: 'instructor', memberships: [] }, recording(null), action).allowed).toBe(true)
      expect(ask(person('staff'), recording(null), action).allowed).toBe(true)
      expect(ask(person('student', member('student')), recording(open), action).allowed).toBe(false)
      expect(ask(person('student', member('assistant')), recording(open), action).allowed).toBe(false)
    }
  })

  it('is not for the instructor of another section', () => {
    expect(ask(person('instructor', { ...member('instructor'), sectionId: 'law' }), recording(null), 'see').allowed).toBe(false)
  })
})

describe('the house', () => {
  it('is planned and run by the team alone', () => {
    for (const role of ['instructor', 'student'] as const) {
      expect(ask(person(role, member('instructor')), { kind: 'house' }, 'plan').allowed).toBe(false)
    }
    expect(ask(person('staff'), { kind: 'house' }, 'plan').allowed).toBe(true)
  })

  it('lets members browse their section and nobody else', () => {
    const section: Thing = { kind: 'section', sectionId: 'hyd' }
    expect(ask(person('student', member('student')), section, 'browse').allowed).toBe(true)
    expect(ask(person('student'), section, 'browse')).toMatchObject({ say: 'hidden' })
    expect(ask(person('student', member('student')), section, 'release').allowed).toBe(false)
  })
})

it('never lets a student of no list do anything, whatever is asked', () => {
  const release = fc.option(fc.record({ opensAt: fc.option(fc.integer()), closesAt: fc.option(fc.integer()) }))
  const things = fc.array(release, { maxLength: 4 }).map((r) => recording(...r))
  const actions = fc.constantFrom<Action>('see', 'watch', 'release', 'place', 'rename', 'browse', 'plan', 'run')
  fc.assert(fc.property(things, actions, fc.integer(), fc.constantFrom<Way>('address', 'placement'), (thing, action, at, way) => {
    const question: Question = { who: person('student', { ...member('student'), sectionId: 'other' }), thing, action, at, way }
    expect(decide(question).allowed).toBe(false)
  }))
})

it('says every refusal in words of its own', () => {
  const reasons = ['not-signed-in', 'not-open-yet', 'closed', 'not-on-class-list', 'held'] as const
  const titles = reasons.map((reason) => refusalSentence({ allowed: false, reasons: [reason], say: 'told' }, 'HYD-210/01').title)
  expect(new Set(titles).size).toBe(reasons.length)
})
