/** Mail out by SMTP (`SMTP_URL`). Without one set, nothing is sent and notices stay in the application. */
import { createTransport, type Transporter } from 'nodemailer'

let transport: Transporter | undefined

export const mailIsSet = (): boolean => Boolean(process.env.SMTP_URL)

/** @throws Error when the server does not take the message */
export async function sendMail(message: { id: string, to: string, name: string, subject: string, text: string }): Promise<void> {
  transport ??= createTransport(process.env.SMTP_URL!, { from: process.env.MAIL_FROM ?? 'Karstland <karstland@localhost>' })
  // The id is the notice's own: sent twice after a crash, a mail program shows it once.
  await transport.sendMail({ to: { name: message.name, address: message.to }, subject: message.subject, text: message.text, messageId: `<${message.id}@notice.karstland>` })
}

export function closeMail(): void {
  transport?.close()
  transport = undefined
}
