/** Watched spans, sent every few seconds while playing. */
import { ArrayMaxSize, IsArray, IsNumber, IsOptional, IsUUID, Min, Max, Validate, ValidatorConstraint, type ValidatorConstraintInterface } from 'class-validator'

@ValidatorConstraint({ name: 'spans' })
class Spans implements ValidatorConstraintInterface {
  validate(spans: unknown): boolean {
    return Array.isArray(spans) && spans.every((s) => Array.isArray(s) && s.length === 2 && s.every((n) => typeof n === 'number' && Number.isFinite(n) && n >= 0))
  }

  defaultMessage = () => 'Spans are pairs of seconds.'
}

export class WatchProgress {
  @IsNumber({}, { message: 'The place is a number of seconds.' })
  @Min(0)
  @Max(1e6)
  positionS = 0

  @IsArray({ message: 'Spans are a list.' })
  @ArrayMaxSize(100, { message: 'At most 100 spans at once.' })
  @Validate(Spans)
  spans: [number, number][] = []

  @IsOptional()
  @IsUUID()
  placementId?: string
}
