/**
 * The recorders of all simulated rooms in one process. They know of the server only an iCalendar
 * address, an address for reports and one for uploads (tus), and a key for each room.
 */
import { readFileSync } from 'node:fs'
import { CampusClock } from '../common/clock'
import { json, logOf, serve, setting } from '../common/program'
import { Room, type RoomSettings } from './room'

const TICK_MS = 200
/** Rooms take turns, so that eleven recorders do not all ask in the same moment. */
const ROUND_MS = 1500

const log = logOf('recorder')
const clock = new CampusClock(setting('CAMPUS_CLOCK_URL'))
await clock.follow()
const places = { server: setting('SERVER_URL'), lectures: setting('LECTURES_DIR'), data: setting('DATA_DIR') }
const rooms = (JSON.parse(readFileSync(setting('ROOMS_FILE'), 'utf8')) as RoomSettings[]).map((settings) => new Room(settings, places, clock, log))

setInterval(() => {
  for (const room of rooms) {
    try {
      room.tick()
    } catch (error) {
      log.error({ err: error, ...room.state() }, 'this recorder stumbled')
    }
  }
}, TICK_MS)

rooms.forEach((room, i) => {
  const round = async () => {
    await room.plan.refresh()
    await room.report()
    void room.send()
    setTimeout(round, ROUND_MS)
  }
  setTimeout(round, i * ROUND_MS / rooms.length)
})

serve('recorder', Number(setting('PORT')), (_request, response) => json(response, 200, rooms.map((room) => room.state())))
