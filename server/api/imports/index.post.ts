import { getQuery, getRequestHeader, readMultipartFormData, setResponseStatus } from 'h3'
import { BeginImport } from '~~/shared/imports/requests'
import { check } from '~~/shared/validate'
import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { Refusal } from '~~/server/services/errors'
import { beginImport } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Brings in class data or a timetable: files as multipart/form-data' } })

const MOST_BYTES = 65 * 1024 ** 2

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  if (Number(getRequestHeader(event, 'content-length') ?? Infinity) > MOST_BYTES) throw new Refusal(413, 'Files of up to 64 MB are taken here. A term’s timetable is smaller; nothing was kept.')
  const { kind, termId, source } = getQuery(event)
  const found = await check(BeginImport, { kind, ...(termId ? { termId } : {}), ...(source === undefined ? {} : { source }) })
  if ('errors' in found) throw new Refusal(422, Object.values(found.errors)[0]!, { fields: found.errors })
  const parts = await readMultipartFormData(event).catch(() => undefined)
  const files = (parts ?? []).filter((p) => p.filename).map((p) => ({ name: p.filename!, bytes: new Uint8Array(p.data) }))
  setResponseStatus(event, 201)
  return beginImport(found.value, files, who.id)
})
