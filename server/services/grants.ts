/**
 * Grants: signed, short-lived addresses for one person and one recording's pictures. They name the
 * session they come from; ending it, or holding the recording again, ends them too.
 */
import { sign, verify } from './secrets'

/** Pictures are fetched for the length of a lecture; the player asks for a new grant before this. */
export const GRANT_MS = 5 * 60_000

interface GrantData { r: string, p: string, s: string }

export function grantFor(recordingId: string, personId: string, sessionId: string): { base: string, expires: number, renewMs: number } {
  // Rounded, so that a reload within a minute finds its pictures in the browser's cache.
  const expires = Math.ceil((Date.now() + GRANT_MS) / 60_000) * 60_000
  return { base: `/media/${sign({ r: recordingId, p: personId, s: sessionId } satisfies GrantData, expires)}`, expires, renewMs: 60_000 }
}

/** What a grant is for; undefined when it is not ours or over. */
export function readGrant(token: string): { recordingId: string, personId: string, sessionId: string } | undefined {
  try {
    const data = verify<GrantData>(token, Date.now())
    return data && { recordingId: data.r, personId: data.p, sessionId: data.s }
  } catch {
    return undefined
  }
}

/** Posters in lists are asked for with the reader's own session. */
export const posterAddress = (recordingId: string): string => `/api/recordings/${recordingId}/poster`
