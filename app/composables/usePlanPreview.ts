/** The dates of the plan in the form, at once from its rule; clashes and ways out a moment later from the server. */
import { useDebounceFn } from '@vueuse/core'
import { datesOf, problemsOf } from '~~/core/timetable/rule'
import { PlanCaptures, wantedOf } from '~~/shared/timetable/plan-captures'
import type { DateView, PlanPreview } from '~~/shared/timetable/views'
import { check } from '~~/shared/validate'

export function usePlanPreview(plan: PlanCaptures) {
  const term = useTerm()
  const me = useMe()
  const examined = shallowRef<PlanPreview | null>(null)
  const trouble = ref('')
  const asking = ref(false)
  let asked = 0

  const ready = computed(() => plan.start !== '' && (plan.repeat === 'once' ? plan.date !== '' : plan.weekdays.length > 0) && (plan.repeat !== 'chosen' || plan.weekNumbers.length > 0))
  const problems = computed(() => (term.view && ready.value ? problemsOf(wantedOf(plan), term.view.term) : {}))

  const own = computed<DateView[]>(() => {
    if (!term.view || !ready.value || Object.keys(problems.value).length || !/^\d\d:\d\d$/.test(plan.start)) return []
    const now = me.campusNow()
    return datesOf(wantedOf(plan), term.view.term).map((d) => ({ date: d.date, week: d.week, start: d.start, end: d.end, roomId: plan.roomId, skipped: d.skipped || (d.start <= now ? 'over' : ''), clash: false }))
  })

  async function ask(): Promise<void> {
    const mine = ++asked
    const found = await check(PlanCaptures, { ...plan })
    if ('errors' in found || Object.keys(problems.value).length) return
    asking.value = true
    try {
      const answer = await api<PlanPreview>('/api/plans/preview', { method: 'POST', body: { ...plan } })
      if (mine === asked) {
        examined.value = answer
        trouble.value = ''
      }
    } catch (error) {
      if (mine === asked) trouble.value = sentenceOf(error)
    } finally {
      if (mine === asked) asking.value = false
    }
  }
  const soon = useDebounceFn(ask, 200, { maxWait: 800 })
  watch(() => JSON.stringify(plan), () => {
    asked++
    examined.value = null
    void soon()
  }, { immediate: true })
  onScopeDispose(useLive().listen((event) => {
    if (event.topic === 'timetable' || event.topic === 'again') void soon()
  }))

  const dates = computed(() => examined.value?.dates ?? own.value)
  return { dates, examined, problems, trouble, asking }
}
