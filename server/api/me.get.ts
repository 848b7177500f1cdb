import { clockSetting } from '~~/server/adapters/clock'
import { route, signedIn } from '~~/server/http/route'
import { Person } from '~~/server/models/person'
import { currentTerm } from '~~/server/services/term'
import type { Me } from '~~/shared/term/views'

defineRouteMeta({ openAPI: { tags: ['people'], summary: 'Who is signed in, and the campus clock' } })

export default route(async (event): Promise<Me> => {
  const { who } = await signedIn(event)
  const [person, { term }] = await Promise.all([Person.findByPk(who.id, { raw: true }), currentTerm()])
  const { id, name, email, role } = person!
  return { person: { id, name, email, role }, clock: clockSetting(), serverNow: Date.now(), zone: term.zone, college: process.env.COLLEGE ?? '', signOut: '/api/auth/sign-out' }
})
