import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { playerCode, linkCode } from '~~/core/placement/embed'
import { clean, contentPage } from './pages'

const course = { id: 'c', title: 'HYD & co', teachers: [], students: [] }
const page = (html: string, title = 'Week') => ({ id: 'p', course: 'c', title, html, published: true })

describe('pages of the course site', () => {
  it('keep the codes that Karstland hands out', () => {
    const frame = clean(playerCode('http://localhost:1/embed/abc', 'Wells & <b>yield</b>'))
    expect(frame).toContain('src="http://localhost:1/embed/abc"')
    expect(frame).toContain('referrerpolicy="no-referrer-when-downgrade"')
    expect(frame).toContain('title="Wells &amp; &lt;b&gt;yield&lt;/b&gt;"')
    expect(clean(linkCode('http://localhost:1/to/abc', '<i>x</i>', 60))).toContain('Watch the recording: &lt;i&gt;x&lt;/i&gt; (1 min)')
  })

  it('run nothing that somebody wrote into them', () => {
    const bad = fc.constantFrom('<script>alert(1)</script>', '<img src=x onerror=alert(1)>', '<a href="javascript:alert(1)">x</a>', '<iframe srcdoc="<script>1</script>"></iframe>', '<svg onload=alert(1)>', '<iframe src="data:text/html,x"></iframe>')
    fc.assert(fc.property(fc.array(bad), fc.string(), (parts, text) => {
      const html = clean(parts.join(text))
      expect(html).not.toMatch(/<script|\son\w+=|javascript:|srcdoc|src="data:/i)
    }))
  })

  it('show titles as text', () => {
    const html = contentPage('A <b>', course, page('', '<script>x</script>'), 'student')
    expect(html).not.toContain('<script>')
    expect(html).toContain('HYD &#38; co')
  })
})
