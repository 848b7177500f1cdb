/** A mailbox for the whole college: takes mail by SMTP for anybody, and shows it on a plain page. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { json, logOf, serve, setting } from '../common/program'

interface Mail { id: number, to: string[], from: string, subject: string, text: string, at: string, messageId: string }

const file = setting('MAIL_FILE')
const log = logOf('mailbox')
const MOST = 500
let mails: Mail[] = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) as Mail[] : []

const smtp = new SMTPServer({
  authOptional: true, disabledCommands: ['STARTTLS', 'AUTH'], size: 5 * 1024 ** 2, logger: false,
  onData(stream, session, done) {
    simpleParser(stream).then((parsed) => {
      const to = session.envelope.rcptTo.map((r) => r.address.toLowerCase())
      mails = [{ id: (mails[0]?.id ?? 0) + 1, to, from: parsed.from?.text ?? '', subject: parsed.subject ?? '', text: parsed.text ?? '', at: new Date().toISOString(), messageId: parsed.messageId ?? '' }, ...mails].slice(0, MOST)
      writeFileSync(file, JSON.stringify(mails))
      log.info({ to, subject: parsed.subject }, 'mail taken')
      done()
    }, done)
  },
})
smtp.on('error', (error) => log.warn({ err: String(error) }, 'smtp'))
smtp.listen(Number(setting('SMTP_PORT')), '127.0.0.1')

const escape = (text: string) => text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }[c]!))
const linked = (text: string) => escape(text).replace(/https?:\/\/[^\s&]+(?:&amp;[^\s&]+)*/g, (url) => `<a href="${url}">${url}</a>`)

function page(who: string | null, open: Mail | undefined): string {
  const shown = mails.filter((m) => !who || m.to.includes(who))
  const people = [...new Set(mails.flatMap((m) => m.to))].sort()
  const query = (id?: number) => `?${who ? `who=${encodeURIComponent(who)}&amp;` : ''}${id ? `id=${id}` : ''}`
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>College mail</title><style>
body{margin:0;font:15px/1.5 Georgia,serif;background:#faf6ef;color:#2b2118}header{background:#6b3f2a;color:#fff;padding:10px 20px}main{display:flex;gap:24px;padding:20px}
ul{list-style:none;margin:0;padding:0;width:420px}li a{display:block;padding:8px 10px;border-bottom:1px solid #dccfbd;color:inherit;text-decoration:none}li a.on,li a:hover{background:#efe4d2}
small{color:#6d5c4c;display:block}article{flex:1;background:#fff;border:1px solid #dccfbd;padding:20px;white-space:pre-wrap}select{font:inherit}</style>
<header>College mail</header><main><div><form><label>Mail of <select name="who" onchange="this.form.submit()"><option value="">everybody</option>${people.map((p) => `<option${p === who ? ' selected' : ''}>${escape(p)}</option>`).join('')}</select></label> <button>Show</button></form>
<ul>${shown.map((m) => `<li><a class="${m === open ? 'on' : ''}" href="${query(m.id)}">${escape(m.subject)}<small>${escape(m.to.join(', '))} · ${m.at.slice(11, 16)}</small></a></li>`).join('') || '<li>No mail.</li>'}</ul></div>
${open ? `<article><b>${escape(open.subject)}</b>\n<small>from ${escape(open.from)} to ${escape(open.to.join(', '))}</small>\n${linked(open.text)}</article>` : ''}</main>`
}

serve('mailbox', Number(setting('PORT')), (request, response, url) => {
  const who = url.searchParams.get('who')?.toLowerCase() || null
  if (url.pathname === '/mails.json') return json(response, 200, mails.filter((m) => !who || m.to.includes(who)))
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(who, mails.find((m) => m.id === Number(url.searchParams.get('id')))))
})
process.once('SIGTERM', () => smtp.close())
