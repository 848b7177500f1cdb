import { getHeader, sendRedirect } from 'h3'
import { originOf, route, slugOf } from '~~/server/http/route'
import { meet, placementOf } from '~~/server/services/placing'

defineRouteMeta({ openAPI: { tags: ['placement'], summary: 'A placed link: notes its page and leads to the recording' } })

export default route(async (event) => {
  const slug = slugOf(event)
  const placement = await placementOf(slug)
  if (!placement) return sendRedirect(event, '/nothing-here')
  await meet(slug, getHeader(event, 'referer'), originOf(event))
  return sendRedirect(event, `/watch/${placement.recordingId}?by=${slug}`)
})
