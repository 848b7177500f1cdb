/** TCP ports on loopback. */
import { createServer } from 'node:net'
import { Stop } from './say.mjs'

const listens = (port) => new Promise((done) => {
  const server = createServer()
  server.once('error', () => done(null))
  server.listen({ host: '127.0.0.1', port, exclusive: true }, () => {
    const got = server.address().port
    server.close(() => done(got))
  })
})

/** A port nobody listens on. */
export const freePort = () => listens(0)

/**
 * Fails with one clear sentence when a port is taken.
 * @param {number} port
 * @param {string} what the program that wants it
 * @param {string} setting the environment variable that moves it
 */
export async function mustBeFree(port, what, setting) {
  if (await listens(port) === null) {
    throw new Stop(`port ${port}, where ${what} should answer, is taken by another program; end that program or choose another port with ${setting}=${port + 10} npm start.`)
  }
}
