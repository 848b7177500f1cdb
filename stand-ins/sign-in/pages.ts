/** The few plain pages of the campus sign-in. */
import type { Somebody } from './people'

const safe = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)

const page = (title: string, inner: string) => `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${title}</title><style>
body{font:16px/1.5 Georgia,'DejaVu Serif',serif;background:#f6f0e4;color:#33261a;margin:0}
main{max-width:34rem;margin:3rem auto;padding:2rem;background:#fffdf8;border:1px solid #b9a789}
h1{font-size:1.4rem;margin:0 0 .4rem}input,button{font:inherit;padding:.45rem .7rem}input{width:100%;box-sizing:border-box;border:1px solid #7a674c}
button{background:#6b3b1d;color:#fff;border:0;cursor:pointer}.list{margin:1rem 0 0;padding:0;list-style:none}
.list button{width:100%;text-align:left;background:#f3e9d6;color:#33261a;margin:.2rem 0;border:1px solid #d3c2a2}.list small{color:#5d4c36}
.no{background:#f6d9cf;padding:.5rem .7rem}</style><main>${inner}</main></html>`

/** Who are you? @param tried an address nobody has, or '' */
export function choosePage(people: Somebody[], action: string, tried: string): string {
  const shown = people.filter((p) => p.note)
  return page('Campus sign-in', `<h1>Fennick College</h1><p>Campus sign-in. This stand-in asks for no password.</p>
${tried ? `<p class="no" role="alert">Nobody here has the address ${safe(tried)}.</p>` : ''}
<form method="post" action="${safe(action)}"><label for="email">Your college address</label>
<input id="email" name="email" type="email" required autocomplete="username"><p><button>Continue</button></p></form>
<ul class="list">${shown.map((p) => `<li><form method="post" action="${safe(action)}"><button name="email" value="${safe(p.email)}">${safe(p.name)} <small>${safe(p.note ?? '')}</small></button></form></li>`).join('')}</ul>`)
}

export const leavePage = (form: string) => page('Sign out', `<h1>Sign out of the college?</h1><p>You have left one program. Your campus sign-in still holds for the others.</p>${form}
<p><button form="op.logoutForm" name="logout" value="yes">Sign out everywhere</button></p><p><button form="op.logoutForm">Stay signed in</button></p>`)

export const leftPage = () => page('Signed out', '<h1>Signed out</h1><p>You may close this window.</p>')
