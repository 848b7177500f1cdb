/** The current term and the weeks chosen on its band, as every place filters by them. */
import { addDays, instantOf } from '~~/core/term/calendar'
import type { TermChoice, TermView } from '~~/shared/term/views'

export const useTerm = defineStore('term', () => {
  const view = shallowRef<TermView | null>(null)
  const error = ref('')

  /** another term than the current one, as the address asks for it */
  const chosen = ref<string>()
  const choices = shallowRef<TermChoice[]>([])

  async function load(): Promise<void> {
    try {
      view.value = await api<TermView>(`/api/term?term=${chosen.value ?? ''}`)
      choices.value = await api<TermChoice[]>('/api/terms')
      error.value = ''
    } catch (problem) {
      error.value = sentenceOf(problem)
    }
  }

  /** From a chosen span of Mondays, `2026-11-09` or `2026-11-09_2026-11-23`, to instants; null without a choice. */
  function spanOf(weeks: string | undefined): { from: number, to: number, first: string } | null {
    const match = /^(\d{4}-\d\d-\d\d)(?:_(\d{4}-\d\d-\d\d))?$/.exec(weeks ?? '')
    if (!match || !view.value) return null
    const { zone } = view.value.term
    return { first: match[1]!, from: instantOf(zone, match[1]!, '00:00'), to: instantOf(zone, addDays(match[2] ?? match[1]!, 7), '00:00') }
  }

  /** The Monday to begin with: of this week when it lies in the term, else the term's first. */
  function firstMonday(thisWeek: string): string {
    const mondays = view.value?.weeks.map((w) => w.monday) ?? []
    const [first] = mondays
    return !first || (thisWeek >= first && thisWeek <= mondays.at(-1)!) ? thisWeek : first
  }

  async function choose(id: string | undefined): Promise<void> {
    if (id === chosen.value && view.value) return
    chosen.value = id
    await load()
  }

  return { view, error, load, choose, choices, spanOf, firstMonday }
})
