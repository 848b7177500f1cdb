/** A live stream as a list that grows. */
import type { PersonClient } from './person'

export interface Heard { topic: string, id?: string, sectionId?: string }

/** Opens a live stream. @returns what was heard so far, and a way to hang up */
export async function listenLive(person: PersonClient, address = '/api/live'): Promise<{ heard: Heard[], hangUp: () => Promise<void> }> {
  const stream = await person.fetch(address)
  const heard: Heard[] = []
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
  void (async () => {
    for (let read = await reader.read(); !read.done; read = await reader.read()) {
      for (const line of read.value.split('\n')) if (line.startsWith('data: ')) heard.push(JSON.parse(line.slice(6)) as Heard)
    }
  })().catch(() => {})
  return { heard, hangUp: () => reader.cancel() }
}
