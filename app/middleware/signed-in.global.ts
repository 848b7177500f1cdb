/** Pages ask for a sign-in before they open; those that outsiders reach do so by themselves. */
const open = /^\/(watch|embed|enter|no-entry|signed-out|nothing-here)(\/|$)/
const team = /^\/(today|bring-in|set-up|messages)(\/|$)/

export default defineNuxtRouteMiddleware(async (to) => {
  if (open.test(to.path)) return
  const me = useMe()
  try {
    if (!me.me) await me.load()
  } catch (error) {
    if (error instanceof ApiError && error.status === 401) return navigateTo(`/api/auth/sign-in?to=${encodeURIComponent(to.fullPath)}`, { external: true })
    throw createError({ statusCode: 503, statusMessage: sentenceOf(error), fatal: true })
  }
  if (to.path === '/') return navigateTo(me.role === 'staff' ? '/today' : me.role === 'instructor' ? '/library' : '/new', { replace: true })
  if (team.test(to.path) && me.role !== 'staff') return navigateTo('/', { replace: true })
  if (/^\/(notices|go|help)(\/|$)/.test(to.path)) return
  if (to.path !== '/new' && me.role === 'student') return navigateTo('/new', { replace: true })
})
