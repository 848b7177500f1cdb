/**
 * The board's captures, drawn and moved with D3: one button a capture in one field, so that 60 rooms
 * and a full week stay fluid. It knows nothing of captures but where they lie; what a move means is
 * the page's affair.
 */
import { drag, type D3DragEvent } from 'd3-drag'
import { select, type Selection } from 'd3-selection'
import { timeOf } from '~~/core/term/days'
import { clamp, placeAt, snapped, stepped, widthOf, xOf, type Geometry } from './geometry'

/** A capture as a block on the board. */
export interface Block {
  id: string
  row: number
  day: number
  /** minutes of the day */
  start: number
  minutes: number
  label: string
  /** a few letters, for narrow blocks */
  short: string
  /** what a screen reader says */
  says: string
  look: string
  movable: boolean
}

/** Where something would go. */
export interface Spot { row: number, day: number, start: number, minutes: number }

export interface BoardEvents {
  open: (id: string) => void
  /** a block was put somewhere else, or made longer */
  moved: (id: string, to: Spot) => void
  /** free space was dragged over */
  drawn: (at: Spot) => void
  /** what to say of where the block is being carried */
  saying: (text: string) => void
}

export interface BoardOptions { usual: readonly number[], rowMoves: boolean, mayPlan: boolean, rowNames: readonly string[] }

const EDGE = 7
/** Blocks up to this width are too narrow for a label across, rows from that height tall enough for one upwards. */
const NARROW = 44
const TALL = 42
const SHORTEST = 10

export class Board {
  #g: Geometry
  #blocks: Block[] = []
  #options: BoardOptions
  #field: Selection<HTMLElement, unknown, null, undefined>
  #ghost: Selection<HTMLElement, unknown, null, undefined>
  #active = ''
  #carried: { block: Block, to: Spot } | null = null

  constructor(readonly element: HTMLElement, g: Geometry, options: BoardOptions, readonly events: BoardEvents) {
    this.#g = g
    this.#options = options
    this.#field = select(element)
    this.#ghost = this.#field.append('div').attr('class', 'board-ghost').attr('aria-hidden', 'true').style('display', 'none') as never
    this.#field.on('keydown', (event: KeyboardEvent) => this.#key(event))
    this.#field.call(this.#drawing() as never)
  }

  /** Draws the blocks anew where they differ. @returns when the browser has the new elements */
  draw(blocks: Block[], g: Geometry, options: BoardOptions): void {
    this.#blocks = blocks
    this.#g = g
    this.#options = options
    if (!blocks.some((b) => b.id === this.#active)) this.#active = blocks[0]?.id ?? ''
    const upright = (b: Block) => widthOf(g, b.minutes) <= NARROW && widthOf(g, b.minutes) > 13 && g.rowHeight >= TALL
    const joined = this.#field.selectAll<HTMLButtonElement, Block>('button').data(blocks, (b) => b.id).join(
      (enter) => enter.append('button').attr('type', 'button').on('click', (_, b) => this.events.open(b.id)).on('focus', (_, b) => this.#activate(b.id)).call(this.#moving() as never),
    )
    joined
      .attr('class', (b) => `board-block ${b.look}${b.movable ? ' board-movable' : ''}${upright(b) ? ' board-upright' : ''}`)
      .attr('aria-label', (b) => b.says).attr('title', (b) => b.says)
      .attr('tabindex', (b) => (b.id === this.#active ? 0 : -1))
      .style('left', (b) => `${xOf(g, b.day, b.start)}px`).style('top', (b) => `${b.row * g.rowHeight + 2}px`)
      .style('width', (b) => `${Math.max(6, widthOf(g, b.minutes) - 1.5)}px`).style('height', `${g.rowHeight - 4}px`)
      .text((b) => (widthOf(g, b.minutes) > NARROW ? b.label : upright(b) ? b.short : ''))
  }

  #activate(id: string): void {
    this.#active = id
    this.#field.selectAll<HTMLButtonElement, Block>('button').attr('tabindex', (b) => (b.id === id ? 0 : -1))
  }

  #show(to: Spot, text: string): void {
    const g = this.#g
    this.#ghost.style('display', null).text(text)
      .style('transform', `translate(${xOf(g, to.day, to.start)}px, ${to.row * g.rowHeight + 1}px)`)
      .style('width', `${widthOf(g, to.minutes)}px`).style('height', `${g.rowHeight - 2}px`)
  }

  #hide(): void {
    this.#ghost.style('display', 'none')
    this.#carried = null
  }

  /** Words of a spot, for the ghost and the screen reader. */
  wordsOf(to: Spot): string {
    return `${timeOf(to.start)}–${timeOf(to.start + to.minutes)}`
  }

  #snap(minutes: number, event: { altKey?: boolean }): number {
    return event.altKey ? Math.round(minutes / 5) * 5 : snapped(minutes, this.#options.usual)
  }

  /** Dragging a block moves it; dragging its right edge changes its length. Alt gives up the snap to usual starts. */
  #moving() {
    let from: { x: number, y: number, edge: boolean } | null = null
    return drag<HTMLButtonElement, Block>()
      .filter((event: PointerEvent, b) => !event.button && b.movable)
      .clickDistance(4)
      .on('start', (event: D3DragEvent<HTMLButtonElement, Block, unknown>, b) => {
        const box = (event.sourceEvent.target as HTMLElement).getBoundingClientRect()
        from = { x: event.x, y: event.y, edge: box.right - (event.sourceEvent as MouseEvent).clientX < EDGE }
        this.#carried = { block: b, to: { row: b.row, day: b.day, start: b.start, minutes: b.minutes } }
      })
      .on('drag', (event: D3DragEvent<HTMLButtonElement, Block, unknown>, b) => {
        if (!from || !this.#carried) return
        this.#carried.to = from.edge ? this.#lengthened(b, event.x - from.x) : this.#placed(b, event.x - from.x, event.y - from.y, event.sourceEvent as MouseEvent)
        this.#show(this.#carried.to, this.wordsOf(this.#carried.to))
      })
      .on('end', (_, b) => {
        const to = this.#carried?.to
        this.#hide()
        if (to && (to.row !== b.row || to.day !== b.day || to.start !== b.start || to.minutes !== b.minutes)) this.events.moved(b.id, to)
      })
  }

  #placed(b: Block, dx: number, dy: number, event: MouseEvent): Spot {
    const g = this.#g
    const at = placeAt(g, xOf(g, b.day, b.start) + dx, b.row * g.rowHeight + g.rowHeight / 2 + dy, this.#options.rowNames.length)
    const start = clamp(this.#snap(at.minutes, event), g.from, 24 * 60 - b.minutes)
    return { row: this.#options.rowMoves ? at.row : b.row, day: at.day, start, minutes: b.minutes }
  }

  #lengthened(b: Block, dx: number): Spot {
    const minutes = Math.round((b.minutes + dx / (this.#g.dayWidth / (this.#g.to - this.#g.from))) / 5) * 5
    return { row: b.row, day: b.day, start: b.start, minutes: clamp(minutes, SHORTEST, Math.min(480, 24 * 60 - b.start)) }
  }

  /** Dragging over free space says where a new capture shall be; a click means the usual fifty minutes. */
  #drawing() {
    let begun: { row: number, day: number, start: number } | null = null
    const spot = (x: number): Spot => {
      const at = placeAt(this.#g, x, 0, 1)
      const length = at.day === begun!.day ? Math.round((at.minutes - begun!.start) / 5) * 5 : 0
      return { ...begun!, minutes: length >= 15 ? length : 50 }
    }
    return drag<HTMLElement, unknown>()
      .filter((event: PointerEvent) => !event.button && this.#options.mayPlan && event.target === this.element)
      .on('start', (event: D3DragEvent<HTMLElement, unknown, unknown>) => {
        const at = placeAt(this.#g, event.x, event.y, this.#options.rowNames.length)
        begun = { row: at.row, day: at.day, start: this.#snap(at.minutes - 14, event.sourceEvent as MouseEvent) }
      })
      .on('drag', (event: D3DragEvent<HTMLElement, unknown, unknown>) => begun && this.#show(spot(event.x), this.wordsOf(spot(event.x))))
      .on('end', (event: D3DragEvent<HTMLElement, unknown, unknown>) => {
        this.#hide()
        if (begun) this.events.drawn(spot(event.x))
        begun = null
      })
  }

  /**
   * Keys: arrows go from block to block; M picks one up, then arrows carry it (Shift by a day), Alt
   * with left and right changes its length, Enter puts it down, Escape gives up.
   */
  #key(event: KeyboardEvent): void {
    const block = this.#blocks.find((b) => b.id === this.#active)
    if (!block) return
    if (this.#carried) return this.#carry(event, this.#carried)
    if ((event.key === 'm' || event.key === 'M') && block.movable) {
      event.preventDefault()
      this.#carried = { block, to: { row: block.row, day: block.day, start: block.start, minutes: block.minutes } }
      this.#tell()
    } else if (event.key.startsWith('Arrow')) {
      event.preventDefault()
      this.#walk(block, event.key)
    }
  }

  #walk(from: Block, key: string): void {
    const when = (b: Block) => b.day * 1440 + b.start
    const sideways = key === 'ArrowLeft' || key === 'ArrowRight'
    const forward = key === 'ArrowRight' || key === 'ArrowDown'
    const ahead = this.#blocks.filter((b) => b !== from && (sideways ? b.row === from.row && (when(b) > when(from)) === forward : b.row !== from.row && (b.row > from.row) === forward))
    const far = (b: Block) => (sideways ? Math.abs(when(b) - when(from)) : Math.abs(b.row - from.row) * 1e6 + Math.abs(when(b) - when(from)))
    const next = ahead.reduce<Block | undefined>((best, b) => (!best || far(b) < far(best) ? b : best), undefined)
    if (!next) return
    this.#activate(next.id)
    this.focus(next.id)
  }

  #carry(event: KeyboardEvent, carried: { block: Block, to: Spot }): void {
    const { to } = carried
    const side = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
    const up = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
    if (event.key === 'Escape' || event.key === 'Enter' || event.key === ' ') {
      const same = to.row === carried.block.row && to.day === carried.block.day && to.start === carried.block.start && to.minutes === carried.block.minutes
      this.#hide()
      this.events.saying(event.key === 'Escape' ? 'Given up; nothing was moved.' : same ? 'Put down where it was.' : '')
      if (event.key !== 'Escape' && !same) this.events.moved(carried.block.id, to)
    } else if (side && event.altKey) to.minutes = clamp(to.minutes + side * 5, SHORTEST, 480)
    else if (side && event.shiftKey) to.day = clamp(to.day + side, 0, this.#g.dates.length - 1)
    else if (side) to.start = clamp(stepped(to.start, this.#options.usual, side), 0, 1440 - to.minutes)
    else if (up && this.#options.rowMoves) to.row = clamp(to.row + up, 0, this.#options.rowNames.length - 1)
    else return
    event.preventDefault()
    event.stopPropagation()
    if (this.#carried) this.#tell()
  }

  #tell(): void {
    const { to, block } = this.#carried!
    this.#show(to, this.wordsOf(to))
    this.events.saying(`Carrying ${block.label}: ${this.#g.dates[to.day]} ${this.wordsOf(to)}, ${this.#options.rowNames[to.row]}. Enter puts it down, Escape gives up.`)
  }

  focus(id: string): void {
    this.#field.selectAll<HTMLButtonElement, Block>('button').filter((b) => b.id === id).node()?.focus()
  }
}
