/** One way to check a body or a form against its class, on both sides of the wire. */
import { validate } from 'class-validator'

/** Field name → sentence. */
export type FieldErrors = Record<string, string>

/**
 * Fills a new instance of `Class` from plain data and checks it; unknown fields are errors.
 * @returns the instance, or the first sentence for each field that is wrong
 */
export async function check<T extends object>(Class: new () => T, data: unknown): Promise<{ value: T } | { errors: FieldErrors }> {
  if (data === null || typeof data !== 'object' || Array.isArray(data)) return { errors: { '': 'An object with fields was expected.' } }
  const value = new Class()
  for (const key of Object.keys(data)) {
    // Assigned one by one: a field called __proto__ must stay a field.
    Object.defineProperty(value, key, { value: (data as Record<string, unknown>)[key], enumerable: true, writable: true, configurable: true })
  }
  const found = await validate(value, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true })
  if (!found.length) return { value }
  return { errors: Object.fromEntries(found.map((e) => [e.property, Object.values(e.constraints ?? { wrong: 'This is not right.' })[0]!])) }
}
