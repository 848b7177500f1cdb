/** A frame that is loaded tells which page it stands on; its placement notes it the first time. */
import { defineEventHandler, getHeader } from 'h3'
import { originOf } from '../http/route'
import { meet } from '../services/placing'
import { log } from '../services/log'

export default defineEventHandler(async (event) => {
  const slug = /^\/embed\/([\w-]{12})(\?|$)/.exec(event.path)?.[1]
  if (!slug || event.method !== 'GET') return
  await meet(slug, getHeader(event, 'referer'), originOf(event)).catch((error: unknown) => log.error({ err: error }, 'placement not noted'))
})
