/** Refusals with a status and a sentence a person can act on; routes turn them into answers. */
export class Refusal extends Error {
  /**
   * @param status HTTP status
   * @param sentence what happened, what is safe, what to do
   * @param data further fields of the answer, such as errors per field
   */
  constructor(readonly status: number, sentence: string, readonly data: object = {}) {
    super(sentence)
  }
}

/** A guessed address is answered as if nothing were there. */
export const nothingHere = () => new Refusal(404, 'There is nothing at this address.')
