/** Random tokens, their hashes for the database, and signed short-lived strings. */
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'

export const newToken = (): string => randomBytes(32).toString('base64url')
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url')

const secret = (name: string): string => {
  const value = process.env[name]
  if (!value || value.length < 32) throw new Error(`${name} must be set to at least 32 characters`)
  return value
}
export const sessionSecret = (): string => secret('SESSION_SECRET')

const mac = (body: string): string => createHmac('sha256', secret('MEDIA_SECRET')).update(body).digest('base64url')

/** Signs plain data with an end, real ms since 1970. */
export function sign(data: object, expires: number): string {
  const body = Buffer.from(JSON.stringify({ ...data, expires })).toString('base64url')
  return `${body}.${mac(body)}`
}

/** The signed data, or undefined when it was changed or its time is over. */
export function verify<T>(text: string, now: number): (T & { expires: number }) | undefined {
  const [body = '', signature = ''] = text.split('.')
  const wanted = Buffer.from(mac(body))
  const given = Buffer.from(signature)
  if (wanted.length !== given.length || !timingSafeEqual(wanted, given)) return undefined
  const data = JSON.parse(Buffer.from(body, 'base64url').toString()) as T & { expires: number }
  return data.expires > now ? data : undefined
}
