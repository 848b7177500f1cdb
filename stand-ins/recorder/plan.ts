/** A room's plan: fetched as iCalendar, kept on disk, so that it holds while the server is away. */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import ICAL from 'ical.js'

export interface PlannedEvent { uid: string, start: number, end: number, summary: string, inputs: string[] }

export class Plan {
  #etag = ''
  events: PlannedEvent[] = []

  constructor(private readonly file: string, private readonly url: string, private readonly key: string) {
    if (existsSync(file)) this.events = read(readFileSync(file, 'utf8'))
  }

  /** Fetches the plan. @returns false when the server could not be reached; the kept plan stays */
  async refresh(): Promise<boolean> {
    try {
      const headers: Record<string, string> = { authorization: `Bearer ${this.key}` }
      if (this.#etag) headers['if-none-match'] = this.#etag
      const answer = await fetch(this.url, { headers, signal: AbortSignal.timeout(5000) })
      if (answer.status === 304) return true
      if (!answer.ok) return false
      const text = await answer.text()
      this.events = read(text)
      this.#etag = answer.headers.get('etag') ?? ''
      writeFileSync(`${this.file}.new`, text)
      renameSync(`${this.file}.new`, this.file)
      return true
    } catch {
      return false
    }
  }
}

function read(text: string): PlannedEvent[] {
  const calendar = new ICAL.Component(ICAL.parse(text))
  return calendar.getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component)
    return {
      uid: event.uid, start: event.startDate.toJSDate().getTime(), end: event.endDate.toJSDate().getTime(), summary: event.summary,
      inputs: (component.getFirstProperty('categories')?.getValues() ?? []) as string[],
    }
  })
}
