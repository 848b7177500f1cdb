import { ChooseNotices } from '~~/shared/notices/views'
import { body, route, signedIn } from '~~/server/http/route'
import { chooseNotices, noticeChoices } from '~~/server/services/notices'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Chooses how I am told of what' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  await chooseNotices(who.id, (await body(event, ChooseNotices)).choices)
  return noticeChoices(who.id)
})
