/** Follows the campus clock service from a stand-in. */

interface Setting { realAnchor: number, campusAnchor: number, rate: number }

export class CampusClock {
  #setting: Setting = { realAnchor: 0, campusAnchor: 0, rate: 1 }
  constructor(private readonly url: string) {}

  now = (): number => Math.round(this.#setting.campusAnchor + (Date.now() - this.#setting.realAnchor) * this.#setting.rate)
  get rate(): number {
    return this.#setting.rate
  }

  /** Waits for the first answer, then follows for ever. */
  async follow(): Promise<void> {
    while (!(await this.#ask(this.url))) await new Promise((r) => setTimeout(r, 300))
    void (async () => {
      for (;;) if (!(await this.#ask(`${this.url}/next?after=${this.#setting.realAnchor}`))) await new Promise((r) => setTimeout(r, 1000))
    })()
  }

  async #ask(url: string): Promise<boolean> {
    try {
      const answer = await fetch(url, { signal: AbortSignal.timeout(40_000) })
      if (answer.ok) this.#setting = await answer.json() as Setting
      return answer.ok
    } catch {
      return false
    }
  }
}
