/** How a capture's state is drawn: shape first, then word, colour third. */
import type { CaptureState } from '~~/core/capture/states'
import { isTrouble } from '~~/core/capture/states'

/** Classes of a block in a state; `recording` is filled up to the now line by the block itself. */
export function lookOf(state: CaptureState): string {
  switch (state) {
    case 'planned': return 'border-2 border-dashed border-pool-ink bg-chalk text-pool-ink'
    case 'armed': return 'border-2 border-solid border-pool-ink bg-chalk text-pool-ink'
    case 'recording': return 'border-2 border-solid border-ember bg-chalk text-ember-ink'
    case 'coming_in': return 'border-2 border-dotted border-pool-ink bg-pool-wash text-ink'
    case 'being_made': return 'border-2 border-solid border-pool-ink bg-chalk hatched text-ink'
    case 'filed': return 'border-2 border-solid border-pool bg-pool text-white'
    case 'missed':
    case 'failed': return 'border-2 border-solid border-ember bg-ember-wash text-ink'
    case 'left_out':
    case 'cancelled': return 'border-2 border-dotted border-edge bg-mist text-slate line-through'
  }
}

/** The sign before a label: trouble is a triangle, recording a dot. */
export const signOf = (state: CaptureState): string => (isTrouble(state) ? '▲ ' : state === 'recording' ? '● ' : '')
