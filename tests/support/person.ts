/** A person who signs in by HTTP as a browser would, and asks the API. */
import { origin } from './house'

export class PersonClient {
  #jars = new Map<string, Map<string, string>>()

  static async signIn(email: string): Promise<PersonClient> {
    const person = new PersonClient()
    let answer = await person.follow(await person.fetch(`${origin}/api/auth/sign-in?to=/`))
    answer = await person.follow(await person.fetch(answer.url, { method: 'POST', body: new URLSearchParams({ email }), headers: { 'content-type': 'application/x-www-form-urlencoded' } }))
    if (new URL(answer.url).origin !== origin) throw new Error(`${email} ended at ${answer.url}`)
    person.landed = answer.url
    return person
  }

  /** where the sign-in led */
  landed = ''

  /** Follows redirects with cookies. */
  async follow(answer: Response & { asked?: string }): Promise<{ url: string, status: number }> {
    let url = answer.asked ?? ''
    for (let i = 0; i < 12 && answer.status >= 300 && answer.status < 400; i++) {
      url = new URL(answer.headers.get('location')!, url).href
      answer = await this.fetch(url)
    }
    return { url, status: answer.status }
  }

  async fetch(url: string, options: RequestInit = {}): Promise<Response & { asked?: string }> {
    const target = new URL(url, origin)
    // Cookies do not tell ports apart, but ours have names of their own.
    const jar = this.#jars.get(target.hostname) ?? new Map<string, string>()
    this.#jars.set(target.hostname, jar)
    const headers = new Headers(options.headers)
    if (jar.size) headers.set('cookie', [...jar].map(([k, v]) => `${k}=${v}`).join('; '))
    const answer: Response & { asked?: string } = await fetch(target, { ...options, headers, redirect: 'manual' })
    for (const cookie of answer.headers.getSetCookie()) {
      const [pair = ''] = cookie.split(';')
      const at = pair.indexOf('=')
      if (pair.slice(at + 1)) jar.set(pair.slice(0, at), pair.slice(at + 1))
      else jar.delete(pair.slice(0, at))
    }
    answer.asked = target.href
    return answer
  }

  /** Asks the API as our own pages do. */
  async api<T>(method: string, path: string, body?: object): Promise<{ status: number, data: T }> {
    const answer = await this.fetch(path, {
      method, body: body && JSON.stringify(body),
      headers: { ...(body ? { 'content-type': 'application/json' } : {}), ...(method === 'GET' ? {} : { origin }) },
    })
    const json = answer.headers.get('content-type')?.includes('json')
    return { status: answer.status, data: (json ? await answer.json() : undefined) as T }
  }
}

export const people = { staff: 'odile.vance@fennick.example', instructor: 'tamsin.okoro@fennick.example', student: 'linnea.ashdown@fennick.example', stranger: 'ida.krall@fennick.example', otherInstructor: 'ines.halloran@fennick.example' }
