/** Shapes that several request classes share. */
import { ValidateBy, type ValidationOptions } from 'class-validator'

export const DATE = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/
export const TIME = /^([01]\d|2[0-3]):[0-5]\d$/
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

/** Dates that differ from their plan: `{ '2026-11-04': { roomId?, start? } }`. */
export function IsExceptions(options: ValidationOptions = { message: 'Dates that go elsewhere name a room or a start.' }): PropertyDecorator {
  return ValidateBy({
    name: 'isExceptions',
    validator: {
      validate(value: unknown): boolean {
        if (value === null || typeof value !== 'object' || Array.isArray(value)) return false
        return Object.entries(value).every(([date, own]) => DATE.test(date) && isException(own)) && Object.keys(value).length <= 400
      },
    },
  }, options)
}

function isException(own: unknown): boolean {
  if (own === null || typeof own !== 'object') return false
  return Object.entries(own).every(([key, value]) =>
    value === undefined || (key === 'roomId' && typeof value === 'string' && UUID.test(value)) || (key === 'start' && typeof value === 'string' && TIME.test(value)))
}
