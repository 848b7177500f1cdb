import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { differenceOf, faultsOf, type ClassData } from './class-data'

const record = fc.record({ sourceId: fc.constantFrom('a', 'b', 'c', 'd', 'e'), title: fc.constantFrom('x', 'y') })
const list = fc.uniqueArray(record, { selector: (r) => r.sourceId })

describe('the difference of an import', () => {
  it('taken in, leaves nothing new or changed; taken in twice, changes nothing', () => {
    fc.assert(fc.property(list, list, (before, incoming) => {
      const d = differenceOf(before, incoming)
      const after = [...before.filter((r) => !d.changed.some((c) => c.before === r) && !d.gone.includes(r)), ...d.changed.map((c) => c.after), ...d.added]
      expect(differenceOf(after, incoming)).toEqual({ added: [], changed: [], gone: [], same: incoming.length })
      expect(d.added.length + d.changed.length + d.same).toBe(incoming.length)
      expect(d.gone.length + d.changed.length + d.same).toBe(before.length)
    }))
  })

  it('names the fields that differ', () => {
    expect(differenceOf([{ sourceId: 'a', title: 'x', n: 1 }], [{ sourceId: 'a', title: 'y', n: 1 }]).changed[0]!.fields).toEqual(['title'])
  })
})

describe('faults of class data', () => {
  const data: ClassData = {
    terms: [{ sourceId: 't1', name: 'Autumn', from: '2026-10-01', to: '2026-12-18' }, { sourceId: 't2', name: 'Spring', from: '2026-12-10', to: '2027-03-20' }],
    courses: [{ sourceId: 'c', code: 'HYD-210', title: 'Groundwater' }],
    sections: [{ sourceId: 's', course: 'c', term: 't1', number: '01' }, { sourceId: 'u', course: 'nowhere', term: 't1', number: '02' }],
    people: [{ sourceId: 'p', subject: 'p', name: 'P', email: 'p@x.example', role: 'student' }, { sourceId: 'q', subject: 'q', name: 'Q', email: 'p@x.example', role: 'student' }],
    enrolments: [{ sourceId: 'e', section: 's', person: 'r', role: 'student', from: '', to: '' }],
  }
  it('are references to nothing, shared addresses and terms that overlap, each with its row', () => {
    const faults = faultsOf(data, (kind, id) => ({ file: `${kind}.csv`, row: id.charCodeAt(0) }))
    expect(faults.map((f) => `${f.file} ${f.row} ${f.column}`)).toEqual(['sections.csv 117 courseSourcedId', 'enrolments.csv 101 userSourcedId', 'terms.csv 116 startDate', 'people.csv 113 email'])
    expect(faults[2]!.sentence).toBe('Spring begins on 2026-12-10, before Autumn ends on 2026-12-18. Terms do not overlap.')
  })
})
