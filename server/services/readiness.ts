/** Whether this process has finished beginning. */
let ready = false

export const isReady = (): boolean => ready
export const nowReady = (): void => {
  ready = true
}
