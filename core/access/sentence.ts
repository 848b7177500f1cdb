/** What a visitor is told when the answer is no: what happened and what to do, without staff words. */
import type { Answer } from './decide'

/**
 * @param section the section the recording was placed for, such as `HYD-210/01 Groundwater Hydrology`
 * @param opens when it opens, already in words, for answers with `opensAt`
 */
export function refusalSentence(answer: Extract<Answer, { allowed: false }>, section: string, opens = ''): { title: string, advice: string } {
  const has = (reason: typeof answer.reasons[number]) => answer.reasons.includes(reason)
  if (has('not-signed-in')) return { title: 'Sign in to watch', advice: 'This recording is for people of the college. Sign in with your campus account.' }
  if (has('not-open-yet')) return { title: 'Not open yet', advice: `This recording opens ${opens}. Come back then.` }
  if (has('closed')) return { title: 'No longer open', advice: 'The time for watching this recording has passed. Ask your instructor if you still need it.' }
  if (has('not-on-class-list')) {
    return {
      title: 'You are not on this class list',
      advice: `This recording is for ${section}. If you have just joined the class, the list may take a day to follow; otherwise ask the instructor.`,
    }
  }
  if (has('held')) return { title: 'Not released yet', advice: 'Your instructor has not released this recording yet. It will play here as soon as they do.' }
  return { title: 'Nothing here', advice: 'There is nothing at this address.' }
}
