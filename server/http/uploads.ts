/** Uploads of recorders by tus 1.0.0. */
import { randomUUID } from 'node:crypto'
import { mkdirSync } from 'node:fs'
import { FileStore } from '@tus/file-store'
import { Server } from '@tus/server'
import { defineEventHandler } from 'h3'
import { incomingDir } from '../adapters/store'
import { arrive, type UploadNote } from '../services/arrivals'
import { Refusal } from '../services/errors'
import { log } from '../services/log'
import { captureIdOf, moveOn, recorderOf } from '../services/recorders'

const MOST_BYTES = 64 * 1024 ** 3

let server: Server | undefined

/** Errors as tus answers them. */
const tusError = (status: number, sentence: string) => ({ status_code: status, body: `${sentence}\n` })

const keyOf = (request: Request) => /^Bearer ([\w.-]{8,200})$/.exec(request.headers.get('authorization') ?? '')?.[1]

async function callerOf(request: Request) {
  try {
    return await recorderOf(keyOf(request))
  } catch (error) {
    throw tusError(error instanceof Refusal ? error.status : 500, (error as Error).message)
  }
}

function make(): Server {
  mkdirSync(incomingDir(), { recursive: true })
  return new Server({
    path: '/recorders/uploads',
    datastore: new FileStore({ directory: incomingDir() }),
    maxSize: MOST_BYTES,
    relativeLocation: true,
    respectForwardedHeaders: false,
    namingFunction: () => randomUUID(),
    onIncomingRequest: async (request, id) => {
      const recorder = await callerOf(request)
      if (!id || request.method === 'POST') return
      const upload = await server!.datastore.getUpload(id).catch(() => undefined)
      if (upload && upload.metadata?.room !== recorder.roomId) throw tusError(404, 'There is no such upload.')
    },
    onUploadCreate: async (request, upload) => {
      const recorder = await callerOf(request)
      const uid = upload.metadata?.uid ?? ''
      const captureId = captureIdOf(uid)
      if (!captureId) throw tusError(400, 'The upload names no event of the plan (metadata “uid”).')
      await moveOn(captureId, recorder.roomId, 'coming_in')
      const note: UploadNote = { uid, room: recorder.roomId, name: (upload.metadata?.filename ?? 'recording').slice(0, 200), request: request.headers.get('x-request-id')?.slice(0, 80) ?? randomUUID() }
      return { metadata: { ...note } }
    },
    onUploadFinish: async (_request, upload) => {
      const { uid = '', room = '', name = '', request = '' } = upload.metadata ?? {}
      const recordingId = await arrive(upload.id, upload.size ?? upload.offset, { uid: uid ?? '', room: room ?? '', name: name ?? '', request: request ?? '' } as UploadNote)
        .catch((error: unknown) => {
          // The bytes are safe; the worker's next round books them.
          log.error({ err: error, upload: upload.id }, 'a whole upload could not be booked at once')
        })
      return recordingId ? { headers: { 'x-recording': recordingId } } : {}
    },
  })
}

export const uploads = defineEventHandler(async (event) => {
  server ??= make()
  await server.handle(event.node.req, event.node.res)
})
