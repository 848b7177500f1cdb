/** The plain pages of the course site. */
import sanitize from 'sanitize-html'
import type { Course, Page, Part } from './data'

const safe = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

/** What a teacher wrote, without anything that could run: frames and links of the web may stay. */
export const clean = (html: string) => sanitize(html, {
  allowedTags: [...sanitize.defaults.allowedTags, 'img', 'iframe', 'h1', 'h2'],
  allowedAttributes: {
    a: ['href', 'title', 'referrerpolicy'], img: ['src', 'alt', 'width', 'height'],
    iframe: ['src', 'title', 'width', 'height', 'style', 'allow', 'allowfullscreen', 'loading', 'referrerpolicy'],
  },
  allowedStyles: { iframe: { 'max-width': [/^\d+%$/], 'aspect-ratio': [/^[\d/ ]+$/], 'height': [/^(auto|\d+px)$/], 'border': [/^0$/] } },
  allowedSchemes: ['http', 'https'],
})

function page(title: string, who: string | null, inner: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${safe(title)}</title><style>
body{font:15px/1.5 Verdana,'DejaVu Sans',sans-serif;margin:0;color:#222;background:#fff}header{background:#7a1f3d;color:#fff;padding:10px 20px;display:flex;gap:20px;align-items:center}
header a{color:#fff}header form{margin-left:auto}main{max-width:820px;padding:10px 20px}a{color:#7a1f3d}button{font:inherit;padding:4px 12px}
textarea,input[type=text]{font:14px monospace;width:100%;box-sizing:border-box}.draft{background:#fff3c4;padding:2px 8px}li{margin:6px 0}</style></head>
<body><header><a href="/">Fennick course pages</a>${who ? `<form method="post" action="/leave">${safe(who)} <button>Leave</button></form>` : ''}</header><main>${inner}</main></body></html>`
}

export const home = (who: string, courses: Course[]) => page('My courses', who,
  `<h1>My courses</h1>${courses.length ? `<ul>${courses.map((c) => `<li><a href="/c/${c.id}">${safe(c.title)}</a></li>`).join('')}</ul>` : '<p>You are in no course.</p>'}`)

export const coursePage = (who: string, course: Course, pages: Page[], part: Part) => page(course.title, who,
  `<h1>${safe(course.title)}</h1><ul>${pages.map((p) => `<li><a href="/p/${p.id}">${safe(p.title)}</a>${p.published ? '' : ' <span class="draft">draft</span>'}</li>`).join('') || '<li>No pages yet.</li>'}</ul>
${part === 'teacher' ? `<form method="post" action="/c/${course.id}/pages"><label>New page <input type="text" name="title" required></label> <button>Make page</button></form>` : ''}`)

export const contentPage = (who: string, course: Course, p: Page, part: Part) => page(p.title, who,
  `<p><a href="/c/${course.id}">${safe(course.title)}</a></p><h1>${safe(p.title)}</h1>
${part === 'teacher' ? `<p>${p.published ? 'Published' : '<span class="draft">Draft: students do not see it</span>'} · <a href="/p/${p.id}/edit">Edit</a></p>
<form method="post" action="/p/${p.id}/publish"><button name="published" value="${p.published ? 'no' : 'yes'}">${p.published ? 'Back to draft' : 'Publish'}</button></form>` : ''}
<article>${clean(p.html)}</article>`)

export const editPage = (who: string, course: Course, p: Page) => page(`Edit ${p.title}`, who,
  `<h1>Edit page</h1><form method="post" action="/p/${p.id}/edit"><p><label>Title <input type="text" name="title" value="${safe(p.title)}" required></label></p>
<p><label>Content (HTML) <textarea name="html" rows="14">${safe(p.html)}</textarea></label></p><button>Save</button> <a href="/p/${p.id}">Back</a></form>`)

export const message = (who: string | null, title: string, text: string) => page(title, who, `<h1>${safe(title)}</h1><p>${safe(text)}</p><p><a href="/">Start</a></p>`)
