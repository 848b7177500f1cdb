/** Short messages about what was just done, with a way to undo it. */
export interface Toast { id: number, text: string, action?: { label: string, run: () => unknown } }

const STAY_MS = 9000

export const useToasts = defineStore('toasts', () => {
  const list = ref<Toast[]>([])
  let last = 0

  function show(text: string, action?: Toast['action']): void {
    const id = ++last
    list.value = [...list.value.slice(-2), { id, text, action }]
    setTimeout(() => drop(id), STAY_MS)
  }

  function drop(id: number): void {
    list.value = list.value.filter((t) => t.id !== id)
  }

  return { list, show, drop }
})
