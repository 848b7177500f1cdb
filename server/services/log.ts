/** Structured log lines on standard output: JSON, one a line, with the program's name. */
import pino from 'pino'

export const log = pino({
  base: { program: process.env.KARSTLAND_ROLE ?? 'web', pid: process.pid },
  level: process.env.LOG_LEVEL ?? 'info',
  timestamp: pino.stdTimeFunctions.isoTime,
})
