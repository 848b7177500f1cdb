/** The HTML that carries a recording onto a course page: a player in a frame, or a descriptive link. */

const entities: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', '\'': '&#39;' }

/** Text made safe for HTML text and quoted attributes. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => entities[sign]!)
}

/**
 * A player in a frame. `referrerpolicy` lets the frame learn which page it stands on, so that the
 * placement can say where it was met.
 * @param address absolute address of the placement's player
 * @param title the recording's name; becomes the frame's accessible name
 * @param width CSS pixels; the height follows at 16:9 and narrows with the page
 */
export function playerCode(address: string, title: string, width = 720): string {
  return `<iframe src="${escapeHtml(address)}" title="${escapeHtml(title)}" width="${width}" height="${Math.round(width * 9 / 16)}" `
    + `style="max-width:100%;aspect-ratio:16/9;height:auto;border:0" allow="fullscreen; picture-in-picture" allowfullscreen loading="lazy" referrerpolicy="no-referrer-when-downgrade"></iframe>`
}

/** Minutes as people say them: `50 min`, `1 h 20 min`, `under a minute`. */
export function lengthWords(seconds: number): string {
  const minutes = Math.round(seconds / 60)
  if (minutes < 1) return 'under a minute'
  const hours = Math.floor(minutes / 60)
  return hours ? `${hours} h${minutes % 60 ? ` ${minutes % 60} min` : ''}` : `${minutes} min`
}

/** A link whose text says what it is, for people who hear it rather than see it. */
export function linkCode(address: string, title: string, seconds: number | null): string {
  const length = seconds === null ? '' : ` (${lengthWords(seconds)})`
  return `<a href="${escapeHtml(address)}" referrerpolicy="no-referrer-when-downgrade">Watch the recording: ${escapeHtml(title)}${length}</a>`
}
