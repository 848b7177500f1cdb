/** What was just done to the timetable, said with its way back. */
import type { Edited } from '~~/shared/timetable/views'

export const useEdits = defineStore('edits', () => {
  const toasts = useToasts()
  /** counts up when the timetable was edited from this window */
  const times = ref(0)

  function done(edited: Pick<Edited, 'editId' | 'sentence' | 'warnings'>): void {
    times.value++
    toasts.show([edited.sentence, ...edited.warnings].join(' '), { label: 'Undo', run: () => undo(edited.editId) })
  }

  async function undo(editId: string): Promise<void> {
    try {
      const { sentence } = await api<{ sentence: string }>(`/api/edits/${editId}/undo`, { method: 'POST' })
      times.value++
      toasts.show(sentence)
    } catch (error) {
      toasts.show(sentenceOf(error))
    }
  }

  return { times, done, undo }
})
