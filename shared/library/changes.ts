/** Changes to a recording and its filing. */
import { IsISO8601, IsOptional, IsString, IsUUID, MaxLength, MinLength, IsIn } from 'class-validator'

/** Releases a filing to its class list; without a window at once and for good. */
export class ReleaseFiling {
  @IsUUID(undefined, { message: 'Say which filing is released.' })
  filingId = ''

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Give the opening as a date and time.' })
  opensAt?: string | null

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Give the closing as a date and time.' })
  closesAt?: string | null
}

export class HoldFiling {
  @IsUUID(undefined, { message: 'Say which filing is held.' })
  filingId = ''
}

export class RenameRecording {
  @IsString({ message: 'A name is text.' })
  @MinLength(1, { message: 'A recording needs a name.' })
  @MaxLength(200, { message: 'A name has at most 200 characters.' })
  name = ''
}

/** Asks for a code to put on a course page. */
export class PlaceFiling {
  @IsUUID(undefined, { message: 'Say which filing is placed.' })
  filingId = ''

  @IsIn(['player', 'link'], { message: 'A placement is a player or a link.' })
  kind: 'player' | 'link' = 'player'
}
