/** Saving a form: checked by its class, sent, and what is wrong said at its fields. */
import { check } from '~~/shared/validate'

/**
 * @param Class the class that form and route share
 * @param path where it is put
 * @param saved called with the answer, once it was taken
 */
export function useSaving<T extends object, A extends { sentence: string }>(Class: new () => T, form: T, path: string, saved: (answer: A) => unknown) {
  const toasts = useToasts()
  const errors = ref<Record<string, string>>({})
  const busy = ref(false)

  async function save(): Promise<void> {
    const found = await check(Class, { ...form })
    errors.value = 'errors' in found ? found.errors : {}
    if ('errors' in found) return
    busy.value = true
    try {
      const answer = await api<A>(path, { method: 'PUT', body: { ...form } })
      toasts.show(answer.sentence)
      await saved(answer)
    } catch (problem) {
      errors.value = problem instanceof ApiError && Object.keys(problem.fields).length ? problem.fields : { '': sentenceOf(problem) }
    } finally {
      busy.value = false
    }
  }

  return { errors, busy, save }
}
