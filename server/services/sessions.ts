/**
 * Sign-ins and tickets. Both are opaque tokens of which only hashes are stored, so both can be ended
 * from here at any moment. Their times are real time: a sped-up campus clock ends nobody's session.
 */
import { Op } from 'sequelize'
import { database } from '../models/database'
import { Person } from '../models/person'
import { Placement } from '../models/placement'
import { Session } from '../models/session'
import { Ticket } from '../models/ticket'
import { record } from './audit'
import { nothingHere } from './errors'
import { hashOf, newToken } from './secrets'

const SESSION_MS = 12 * 3600_000
/** Long enough for a slow network, short enough to be worthless when copied; renewed while watching. */
export const TICKET_MS = 15 * 60_000

export interface SignedIn { sessionId: string, personId: string, placementId?: string }

/** The person the sign-in names, when they may come in; undefined otherwise. */
export async function personOf(subject: string, email: string | undefined): Promise<Person | undefined> {
  const person = await Person.findOne({ where: email ? { [Op.or]: [{ subject }, { email: email.toLowerCase() }] } : { subject } })
  return person && !person.barred ? person : undefined
}

/** Begins a session. @returns the token for the cookie */
export async function beginSession(person: Person, idToken: string | undefined): Promise<string> {
  const token = newToken()
  const now = Date.now()
  await database.transaction(async (transaction) => {
    const session = await Session.create({
      tokenHash: hashOf(token), personId: person.id, idToken: idToken ?? null, beganAt: new Date(now), expiresAt: new Date(now + SESSION_MS),
    }, { transaction })
    await person.update({ lastSignInAt: new Date(now) }, { transaction })
    await record(transaction, person.id, 'signed in', session.id)
  })
  return token
}

const alive = () => ({ endedAt: null, expiresAt: { [Op.gt]: new Date() } })

export async function findSession(token: string): Promise<SignedIn | undefined> {
  const session = await Session.findOne({ where: { tokenHash: hashOf(token), ...alive() }, raw: true })
  return session ? { sessionId: session.id, personId: session.personId } : undefined
}

/** Ends a session, and with it every ticket it handed out. @returns what the sign-in needs to end its own */
export async function endSession(sessionId: string): Promise<string | null> {
  return database.transaction(async (transaction) => {
    const session = await Session.findByPk(sessionId, { transaction })
    if (!session) return null
    await session.update({ endedAt: new Date() }, { transaction })
    await record(transaction, session.personId, 'signed out', session.id)
    return session.idToken
  })
}

/** A ticket for the frame of one placement. @throws Refusal 404 for an unknown placement */
export async function issueTicket(sessionId: string, slug: string): Promise<{ ticket: string, expires: number }> {
  const placement = await Placement.findOne({ where: { slug } })
  if (!placement) throw nothingHere()
  const ticket = newToken()
  const expires = Date.now() + TICKET_MS
  await Ticket.create({ tokenHash: hashOf(ticket), sessionId, placementId: placement.id, expiresAt: new Date(expires) })
  return { ticket, expires }
}

/** Whose ticket this is, while it and its session last. */
export async function findTicket(token: string): Promise<SignedIn | undefined> {
  const ticket = await Ticket.findOne({ where: { tokenHash: hashOf(token), expiresAt: { [Op.gt]: new Date() } }, raw: true })
  if (!ticket) return undefined
  const session = await Session.findOne({ where: { id: ticket.sessionId, ...alive() }, raw: true })
  return session ? { sessionId: session.id, personId: session.personId, placementId: ticket.placementId } : undefined
}

/** Gives a ticket that still holds another while. */
export async function renewTicket(token: string): Promise<number | undefined> {
  if (!(await findTicket(token))) return undefined
  const expires = Date.now() + TICKET_MS
  await Ticket.update({ expiresAt: new Date(expires) }, { where: { tokenHash: hashOf(token) } })
  return expires
}
