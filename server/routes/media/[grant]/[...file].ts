import { getRouterParam } from 'h3'
import { route } from '~~/server/http/route'
import { sendFile } from '~~/server/http/send-file'
import { pathOf } from '~~/server/adapters/store'
import { Recording } from '~~/server/models/recording'
import { askMedia } from '~~/server/services/access'
import { Refusal } from '~~/server/services/errors'
import { readGrant } from '~~/server/services/grants'

defineRouteMeta({ openAPI: { tags: ['media'], summary: 'Streams and poster by a signed, short-lived address; ranges work' } })

/** All that a player fetches; nothing else of the store is reachable. */
const FILES = /^((screen|camera)\/index\.(m3u8|m4s)|poster\.jpg|level\.json)$/

const prefixes = new Map<string, string>()

export default route(async (event) => {
  const grant = readGrant(getRouterParam(event, 'grant') ?? '')
  const file = getRouterParam(event, 'file') ?? ''
  if (!grant || !FILES.test(file)) throw new Refusal(403, 'This address is over or not whole. The page it came from gives a new one.')
  const answer = await askMedia(grant.personId, grant.sessionId, grant.recordingId)
  if (!answer.allowed) throw new Refusal(403, 'This may not be watched from here any more.')
  return sendFile(event, pathOf(await prefixOf(grant.recordingId), file), 'private, max-age=300')
})

/** A prefix never changes once it is set. */
async function prefixOf(recordingId: string): Promise<string> {
  const known = prefixes.get(recordingId)
  if (known) return known
  const prefix = (await Recording.findByPk(recordingId, { attributes: ['storePrefix'], raw: true }))?.storePrefix
  if (!prefix) throw new Refusal(404, 'It is not ready yet.')
  if (prefixes.size > 5000) prefixes.clear()
  prefixes.set(recordingId, prefix)
  return prefix
}
