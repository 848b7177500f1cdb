/**
 * The one place that decides who may do what. Everything that answers a person asks here: pages,
 * routes, media addresses and the live stream.
 *
 * A question is (who, action, thing, moment, way in); the answer is yes or no with the reasons in
 * order, and for a no how it is to be said:
 * - `sign-in`: nobody is known yet; signing in may help
 * - `told`: the visitor followed a placement or shares the section: say why, in plain words
 * - `hidden`: a guessed address; answer as if nothing were there
 */

export type Role = 'staff' | 'instructor' | 'student'
export type ListRole = 'instructor' | 'assistant' | 'student'

/** One line of a class list; `from` and `to` are instants in ms, null for open ends. */
export interface Membership { sectionId: string, role: ListRole, from: number | null, to: number | null }

export type Who =
  | { kind: 'nobody' }
  | { kind: 'person', id: string, role: Role, memberships: Membership[] }

/** A release: who may watch a filing, and in which window (ms; null is open). */
export interface Release { opensAt: number | null, closesAt: number | null }

/** One filing of a recording: the section whose folder it lies in, and its release (null: held). */
export interface FilingFacts { sectionId: string, release: Release | null }

export type Thing =
  | { kind: 'recording', ownerIds: string[], filings: FilingFacts[] }
  | { kind: 'section', sectionId: string }
  | { kind: 'house' }

/** What people do. `see`, `watch`, `release`, `place`, `rename` concern recordings; `browse` sections; the others the whole house. */
export type Action = 'see' | 'watch' | 'release' | 'place' | 'rename' | 'browse' | 'plan' | 'run'

/** How the visitor came: by an address alone, or through a placement on a course page. */
export type Way = 'address' | 'placement'

export interface Question { who: Who, action: Action, thing: Thing, at: number, way: Way }

export type Reason =
  | 'staff' | 'owner' | 'section-instructor' | 'class-list' | 'released'
  | 'not-signed-in' | 'not-on-class-list' | 'held' | 'not-open-yet' | 'closed' | 'team-only'

export type Answer =
  | { allowed: true, reasons: Reason[] }
  | { allowed: false, reasons: Reason[], say: 'sign-in' | 'told' | 'hidden', opensAt?: number }

const yes = (...reasons: Reason[]): Answer => ({ allowed: true, reasons })
const no = (say: 'sign-in' | 'told' | 'hidden', ...reasons: Reason[]): Answer => ({ allowed: false, reasons, say })

/** Answers a question. Pure: the moment is part of the question. */
export function decide(question: Question): Answer {
  const { who, action, thing } = question
  if (who.kind === 'nobody') return no('sign-in', 'not-signed-in')
  if (who.role === 'staff') return yes('staff')
  switch (thing.kind) {
    case 'house': return no('hidden', 'team-only')
    case 'section': return decideSection(who.memberships, thing.sectionId, action, question.at)
    case 'recording': return decideRecording(question, who, thing)
  }
}

type Person = Extract<Who, { kind: 'person' }>
type Recording = Extract<Thing, { kind: 'recording' }>

/** The roles a person has in a section at a moment. */
export function rolesIn(memberships: readonly Membership[], sectionId: string, at: number): ListRole[] {
  return memberships
    .filter((m) => m.sectionId === sectionId && (m.from === null || m.from <= at) && (m.to === null || at < m.to))
    .map((m) => m.role)
}

function decideSection(memberships: Membership[], sectionId: string, action: Action, at: number): Answer {
  const roles = rolesIn(memberships, sectionId, at)
  if (!roles.length) return no('hidden', 'not-on-class-list')
  if (action === 'browse') return yes('class-list')
  if (roles.includes('instructor') && (action === 'release' || action === 'place' || action === 'plan')) return yes('section-instructor')
  return no('hidden', 'team-only')
}

/** Students watch; instructors (and assistants, short of releasing) also see what is held. */
function decideRecording({ action, at, way }: Question, who: Person, thing: Recording): Answer {
  if (thing.ownerIds.includes(who.id)) return yes('owner')
  const teaches = thing.filings.flatMap((f) => rolesIn(who.memberships, f.sectionId, at)).filter((r) => r !== 'student')
  if (teaches.includes('instructor')) return yes('section-instructor')
  if (teaches.includes('assistant') && (action === 'see' || action === 'watch')) return yes('section-instructor')
  const mine = thing.filings.filter((f) => rolesIn(who.memberships, f.sectionId, at).length)
  if (!mine.length) return no(way === 'placement' ? 'told' : 'hidden', 'not-on-class-list')
  if (action !== 'see' && action !== 'watch') return no('hidden', 'team-only')
  return throughReleases(mine, at, way)
}

/** The most generous of several filings wins; of several noes the most hopeful one is told. */
function throughReleases(filings: FilingFacts[], at: number, way: Way): Answer {
  const say = way === 'placement' ? 'told' : 'hidden'
  const releases = filings.flatMap((f) => (f.release ? [f.release] : []))
  if (releases.some((r) => (r.opensAt ?? -Infinity) <= at && at < (r.closesAt ?? Infinity))) return yes('class-list', 'released')
  const opening = releases.map((r) => r.opensAt ?? -Infinity).filter((opens) => opens > at)
  // Someone released to is expected to find the page before it opens, so they are told either way.
  if (opening.length) return { allowed: false, reasons: ['class-list', 'not-open-yet'], say: 'told', opensAt: Math.min(...opening) }
  if (releases.length) return no('told', 'class-list', 'closed')
  return no(say, 'class-list', 'held')
}
