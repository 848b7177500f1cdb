/** What the person at the terminal reads: one line a step, with the seconds since the start. */
const began = Date.now()

/** Prints `  12.3 s  text`. */
export function say(text) {
  const seconds = ((Date.now() - began) / 1000).toFixed(1).padStart(6)
  console.log(`${seconds} s  ${text}`)
}

/** Seconds since this command began. */
export const elapsed = () => (Date.now() - began) / 1000

/** A reason to stop that the person can act on; printed as one sentence, without a stack. */
export class Stop extends Error {}

/** Runs `main`, turning a {@link Stop} into one sentence and exit code 1. */
export async function orStop(main) {
  try {
    await main()
  } catch (error) {
    if (error instanceof Stop) console.error(`\nStopped: ${error.message}`)
    else console.error('\nStopped by an error that was not foreseen:\n', error)
    process.exitCode = 1
    return false
  }
  return true
}
