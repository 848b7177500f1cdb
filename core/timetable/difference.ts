/**
 * What a timetable that is taken in again has changed since the last time. The comparison is with what
 * the source itself said last, not with what stands: so changes made by hand since are neither seen as
 * the source's nor overwritten.
 */
import type { Incoming } from './rows'
import type { Wanted } from './wanted'

/** A plan as the source gave it last. */
export interface Known { key: string, wanted: Wanted }

export type WantedField = 'dates' | 'start' | 'minutes' | 'room' | 'presenter' | 'inputs' | 'title'

export interface ImportDifference {
  added: number[]
  same: { known: number, incoming: number }[]
  changed: { known: number, incoming: number, fields: WantedField[] }[]
  gone: number[]
}

const datesText = (w: Wanted) => JSON.stringify([w.weekdays, w.weeks, w.from, w.until, w.leftOut])

/** What differs between two plans of one section. */
export function fieldsBetween(a: Wanted, b: Wanted): WantedField[] {
  const differs: [WantedField, boolean][] = [
    ['dates', datesText(a) !== datesText(b)], ['start', a.start !== b.start], ['minutes', a.minutes !== b.minutes], ['room', a.roomId !== b.roomId],
    ['presenter', a.presenterId !== b.presenterId], ['inputs', a.inputs.join() !== b.inputs.join()], ['title', a.title !== b.title],
  ]
  return differs.filter(([, is]) => is).map(([field]) => field)
}

/**
 * A plan as it stands, with what its source has changed since the last time: what was changed by hand
 * and the source says nothing new about stays.
 */
export function withChanges(standing: Wanted, incoming: Wanted, fields: readonly WantedField[]): Wanted {
  const has = (field: WantedField) => fields.includes(field)
  const { weekdays, weeks, from, until, leftOut } = has('dates') ? incoming : standing
  return {
    ...standing, weekdays, weeks, from, until, leftOut, start: has('start') ? incoming.start : standing.start, minutes: has('minutes') ? incoming.minutes : standing.minutes,
    roomId: has('room') ? incoming.roomId : standing.roomId, presenterId: has('presenter') ? incoming.presenterId : standing.presenterId,
    // Another room takes in what it has.
    inputs: has('inputs') || has('room') ? incoming.inputs : standing.inputs, title: has('title') ? incoming.title : standing.title,
  }
}

/** How alike two plans of one section are; from 3 on they are taken for the same one, changed. */
function likeness(a: Wanted, b: Wanted): number {
  const shared = a.weekdays.filter((w) => b.weekdays.includes(w)).length
  return (shared ? 3 : 0) + (a.start === b.start ? 2 : 0) + (a.roomId === b.roomId ? 1 : 0) + (a.minutes === b.minutes ? 0.5 : 0) + (a.presenterId === b.presenterId ? 0.5 : 0) + (a.title !== '' && a.title === b.title ? 1 : 0)
}
const ALIKE = 3

/**
 * Pairs incoming plans with known ones: by the source's own key, then those exactly alike, then in
 * each section the most alike first.
 */
export function importDifference(known: readonly Known[], incoming: readonly Incoming[]): ImportDifference {
  const pairOf = new Map<number, number>()
  const taken = new Set<number>()
  const pair = (i: number, k: number) => {
    pairOf.set(i, k)
    taken.add(k)
  }
  pairBy(incoming, known, pairOf, taken, pair, (i) => (i.key ? `key ${i.key}` : ''), (k) => `key ${k.key}`)
  pairBy(incoming, known, pairOf, taken, pair, (i) => exactly(i.wanted), (k) => exactly(k.wanted))
  pairAlike(incoming, known, pairOf, taken, pair)
  const found: ImportDifference = { added: [], same: [], changed: [], gone: [] }
  incoming.forEach((plan, i) => {
    const k = pairOf.get(i)
    if (k === undefined) return found.added.push(i)
    const fields = fieldsBetween(known[k]!.wanted, plan.wanted)
    // Another section under the same key is another plan.
    if (known[k]!.wanted.sectionId !== plan.wanted.sectionId) {
      taken.delete(k)
      return found.added.push(i)
    }
    return fields.length ? found.changed.push({ known: k, incoming: i, fields }) : found.same.push({ known: k, incoming: i })
  })
  known.forEach((_, k) => !taken.has(k) && found.gone.push(k))
  return found
}

const exactly = (w: Wanted) => JSON.stringify([w.sectionId, datesText(w), w.start, w.minutes, w.roomId, w.presenterId, w.title])

function pairBy(incoming: readonly Incoming[], known: readonly Known[], pairOf: Map<number, number>, taken: Set<number>, pair: (i: number, k: number) => void, nameOf: (i: Incoming) => string, nameOfKnown: (k: Known) => string): void {
  const byName = new Map<string, number[]>()
  known.forEach((k, at) => !taken.has(at) && byName.set(nameOfKnown(k), [...(byName.get(nameOfKnown(k)) ?? []), at]))
  incoming.forEach((plan, i) => {
    const name = nameOf(plan)
    const at = name && !pairOf.has(i) ? byName.get(name)?.shift() : undefined
    if (at !== undefined) pair(i, at)
  })
}

function pairAlike(incoming: readonly Incoming[], known: readonly Known[], pairOf: Map<number, number>, taken: Set<number>, pair: (i: number, k: number) => void): void {
  const bySection = new Map<string, number[]>()
  known.forEach((k, at) => !taken.has(at) && bySection.set(k.wanted.sectionId, [...(bySection.get(k.wanted.sectionId) ?? []), at]))
  const pairs: { i: number, k: number, like: number }[] = []
  incoming.forEach((plan, i) => {
    if (pairOf.has(i)) return
    for (const k of bySection.get(plan.wanted.sectionId) ?? []) {
      // A plan with a key of its own is matched by that key or not at all.
      const like = plan.key ? 0 : likeness(known[k]!.wanted, plan.wanted)
      if (like >= ALIKE) pairs.push({ i, k, like })
    }
  })
  for (const { i, k } of pairs.sort((a, b) => b.like - a.like)) if (!pairOf.has(i) && !taken.has(k)) pair(i, k)
}
