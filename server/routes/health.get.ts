import { route } from '~~/server/http/route'

defineRouteMeta({ openAPI: { tags: ['running'], summary: 'The process lives' } })

export default route(() => ({ alive: true, role: process.env.KARSTLAND_ROLE ?? 'web' }))
