import { setResponseStatus } from 'h3'
import { WriteToTeam } from '~~/shared/help/messages'
import { body, route, signedIn } from '~~/server/http/route'
import { writeToTeam } from '~~/server/services/help'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Writes to the team, with the address of what one was looking at' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  setResponseStatus(event, 201)
  return writeToTeam(who, await body(event, WriteToTeam))
})
