/** Data of a page that keeps itself current: asked for at first, and again when something it concerns has changed. */
import { useDebounceFn } from '@vueuse/core'
import type { LiveEvent } from '~~/shared/live/events'

/**
 * @param ask asks the server; reads reactive values, and is asked again when they change
 * @param concerns which live events make it ask again
 */
export function useLiveData<T>(ask: () => Promise<T>, concerns: (event: LiveEvent) => boolean) {
  const data = shallowRef<T | null>(null)
  const error = ref('')
  const pending = ref(true)
  let asked = 0

  async function refresh(): Promise<void> {
    const mine = ++asked
    pending.value = true
    try {
      const found = await ask()
      // A slower answer to an earlier question must not replace a later one.
      if (mine === asked) {
        data.value = found
        error.value = ''
      }
    } catch (problem) {
      if (mine === asked) error.value = sentenceOf(problem)
    } finally {
      if (mine === asked) pending.value = false
    }
  }

  const soon = useDebounceFn(refresh, 250, { maxWait: 1000 })
  watchEffect(() => void refresh())
  onScopeDispose(useLive().listen((event) => {
    if (event.topic === 'again' || concerns(event)) void soon()
  }))
  return { data, error, pending, refresh }
}
