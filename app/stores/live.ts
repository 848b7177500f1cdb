/** The live stream: one connection a window, listeners by topic. */
import type { LiveEvent } from '~~/shared/live/events'

type Listener = (event: LiveEvent) => void

export const useLive = defineStore('live', () => {
  const connected = ref(false)
  const listeners = new Set<Listener>()
  let source: EventSource | undefined
  let before = false

  function open(): void {
    if (source) return
    source = new EventSource('/api/live')
    source.onmessage = (message) => {
      const event = JSON.parse(message.data as string) as LiveEvent
      connected.value = true
      if (event.topic === 'clock') useMe().setClock(event.clock, event.serverNow)
      // What changed while the line was down is not repeated: everything is looked at again.
      if (event.topic === 'hello' && before) tellAll({ topic: 'again' })
      before = true
      tellAll(event)
    }
    source.onerror = () => {
      connected.value = false
      if (source?.readyState !== EventSource.CLOSED) return
      source = undefined
      setTimeout(open, 3000)
    }
  }

  function tellAll(event: LiveEvent): void {
    for (const listener of listeners) listener(event)
  }

  function listen(listener: Listener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  return { connected, open, listen }
})
