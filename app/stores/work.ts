/** What is under way, kept current by the live stream. */
import type { UndertakingView } from '~~/shared/library/views'

export const useWork = defineStore('work', () => {
  const all = shallowRef<UndertakingView[]>([])
  const error = ref('')

  async function load(): Promise<void> {
    try {
      all.value = await api<UndertakingView[]>('/api/under-way')
      error.value = ''
    } catch (problem) {
      error.value = sentenceOf(problem)
    }
  }

  function take(view: UndertakingView): void {
    const rest = all.value.filter((w) => w.id !== view.id)
    const at = all.value.findIndex((w) => w.id === view.id)
    all.value = at < 0 ? [view, ...rest] : all.value.map((w) => (w.id === view.id ? view : w))
  }

  const running = computed(() => all.value.filter((w) => w.state === 'running'))
  const waiting = computed(() => all.value.filter((w) => w.state === 'waiting'))
  const failed = computed(() => all.value.filter((w) => w.state === 'failed'))
  const of = (recordingId: string) => all.value.find((w) => w.recordingId === recordingId)
  return { all, error, load, take, running, waiting, failed, of }
})
