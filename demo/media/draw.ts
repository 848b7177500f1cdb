/** Draws slides and the lecturer as SVG. */
import type { Deck, Slide } from './decks'

const safe = (text: string) => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`)
const FONT = 'DejaVu Sans'

/** A slide, 1280 x 720. @param n its number from 1 */
export function slideSvg(deck: Deck, slide: Slide, n: number): string {
  const ink = `hsl(${deck.hue} 45% 18%)`
  const first = n === 1
  const lines = slide.lines.map((line, i) => `<text x="110" y="${(first ? 400 : 260) + i * 86}" font-size="${first ? 34 : 38}" fill="#23292b">${first ? '' : '<tspan fill="hsl(' + deck.hue + ' 50% 40%)">▪ </tspan>'}${safe(line)}</text>`).join('')
  return `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="720" font-family="${FONT}"><rect width="1280" height="720" fill="hsl(${deck.hue} 30% 97%)"/>
<rect width="1280" height="${first ? 720 : 130}" fill="${first ? `hsl(${deck.hue} 35% 92%)` : ink}"/>${drawing(deck, n)}
<text x="${first ? 110 : 70}" y="${first ? 300 : 84}" font-size="${first ? 58 : 46}" font-weight="bold" fill="${first ? ink : '#fff'}">${safe(slide.title)}</text>${lines}
<text x="70" y="690" font-size="20" fill="#51605f">${safe(deck.course)}</text><text x="1210" y="690" font-size="20" fill="#51605f" text-anchor="end">${n} / ${deck.slides.length}</text></svg>`
}

/** A landscape in section: strata, another one on each slide. */
function drawing(deck: Deck, n: number): string {
  const layer = (i: number) => {
    const y = 520 + i * 46
    const wave = [0, 1, 2, 3, 4].map((k) => `${k ? 'T' : 'M'} ${760 + k * 130} ${y + (k ? 0 : 12 * Math.sin(n + i))}`)
    return `<path d="${wave[0]} Q 825 ${y - 30 - 8 * ((n + i) % 4)} 890 ${y} ${wave.slice(2).join(' ')} V 640 H 760 Z" fill="hsl(${deck.hue + i * 9} ${40 - i * 6}% ${74 - i * 13}%)" opacity="0.8"/>`
  }
  return `<g>${[0, 1, 2].map(layer).join('')}</g>`
}

/** The lecturer at the lectern, 640 x 360. @param t time in the loop, 0 to 1 */
export function lecturerSvg(deck: Deck, t: number): string {
  const turn = Math.sin(t * 2 * Math.PI)
  const arm = -40 + 35 * Math.sin(t * 4 * Math.PI)
  const mouth = 3 + 3 * Math.abs(Math.sin(t * 14 * Math.PI))
  const coat = `hsl(${deck.hue} 35% 34%)`
  const hair = deck.voice === 'slt' ? '<path d="M288 118 q32 -52 66 0 l6 62 h-14 l-6 -50 h-38 l-6 50 h-14 z" fill="#4a3020"/>' : '<path d="M292 116 q28 -44 58 0 l-4 10 h-50 z" fill="#55504b"/>'
  return `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="360"><rect width="640" height="360" fill="#cfd6d3"/><rect y="290" width="640" height="70" fill="#8d8474"/>
<rect x="40" y="40" width="190" height="120" fill="hsl(${deck.hue} 30% 95%)" stroke="#59656a" stroke-width="4"/><path d="M60 140 l40 -50 30 28 50 -62" fill="none" stroke="${coat}" stroke-width="4"/>
<g transform="translate(${turn * 14} 0)"><path d="M272 300 q4 -112 50 -112 q46 0 50 112 z" fill="${coat}"/><g transform="rotate(${arm} 366 206)"><rect x="360" y="200" width="70" height="16" rx="8" fill="${coat}"/><circle cx="436" cy="208" r="10" fill="#e0b79a"/></g>
<rect x="272" y="204" width="16" height="70" rx="8" fill="${coat}"/><circle cx="321" cy="146" r="32" fill="#e0b79a"/>${hair}<circle cx="${311 + turn * 3}" cy="142" r="3.4"/><circle cx="${333 + turn * 3}" cy="142" r="3.4"/><ellipse cx="${322 + turn * 3}" cy="161" rx="8" ry="${mouth}" fill="#7d3b33"/></g>
<path d="M236 238 h120 l-12 100 h-96 z" fill="#6b4a30"/><rect x="226" y="228" width="140" height="14" rx="3" fill="#7d5a3c"/></svg>`
}
