/**
 * The frame of every route: validate → allow → do → shape. A route throws {@link Refusal}; here it
 * becomes an answer with a status and `{ sentence, … }`.
 */
import { defineEventHandler, getHeader, getRouterParam, readBody, setResponseStatus, getRequestURL, type EventHandlerRequest, type H3Event } from 'h3'
import type { Who } from '~~/core/access/decide'
import { check } from '~~/shared/validate'
import { whoIs } from '../services/access'
import { nothingHere, Refusal } from '../services/errors'
import { findSession, findTicket, type SignedIn } from '../services/sessions'
import { readSessionToken } from './cookie'

type Event = H3Event<EventHandlerRequest>

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

export function route<T>(handler: (event: Event) => Promise<T> | T) {
  return defineEventHandler(async (event) => {
    try {
      return await handler(event)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      setResponseStatus(event, error.status)
      return { sentence: error.message, ...error.data }
    }
  })
}

/** Who the session cookie stands for; undefined when nobody is signed in. */
export async function visitor(event: Event): Promise<SignedIn | undefined> {
  const token = await readSessionToken(event)
  return token ? findSession(token) : undefined
}

/** Somebody signed in. @throws Refusal 401 */
export async function signedIn(event: Event): Promise<{ session: SignedIn, who: Extract<Who, { kind: 'person' }> }> {
  const session = await visitor(event)
  const who = await whoIs(session?.personId)
  if (!session || who.kind === 'nobody') throw new Refusal(401, 'Sign in to go on. What you were doing is still on this page.')
  return { session, who }
}

/** Whose ticket a frame carries; undefined without one. */
export async function ticketHolder(event: Event): Promise<SignedIn | undefined> {
  const token = bearer(event)
  return token ? findTicket(token) : undefined
}

export function bearer(event: Event): string | undefined {
  return /^Bearer ([\w.-]{8,200})$/.exec(getHeader(event, 'authorization') ?? '')?.[1]
}

/** The body as an instance of its class. @throws Refusal 422 with `fields` */
export async function body<T extends object>(event: Event, Class: new () => T): Promise<T> {
  const data: unknown = await readBody(event).catch(() => null)
  const found = await check(Class, data)
  if ('value' in found) return found.value
  throw new Refusal(422, Object.values(found.errors)[0]!, { fields: found.errors })
}

/** An id from the address. @throws Refusal 404 when it has not the shape of one */
export function idOf(event: Event, name = 'id'): string {
  const id = getRouterParam(event, name) ?? ''
  if (!UUID.test(id)) throw nothingHere()
  return id
}

/** A term's id from the query; undefined without one. @throws Refusal 404 when it has not the shape of one */
export function termAsked(value: unknown): string | undefined {
  if (value === undefined || value === '') return undefined
  if (typeof value !== 'string' || !UUID.test(value)) throw nothingHere()
  return value
}

/** A placement's slug from the address. @throws Refusal 404 */
export function slugOf(event: Event): string {
  const slug = getRouterParam(event, 'slug') ?? ''
  if (!/^[\w-]{12}$/.test(slug)) throw nothingHere()
  return slug
}

/** Scheme and host by which this Karstland is reached. */
export function originOf(event: Event): string {
  return process.env.PUBLIC_ORIGIN ?? getRequestURL(event).origin
}

export const requestIdOf = (event: Event): string => event.context.requestId as string
