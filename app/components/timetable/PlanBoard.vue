<script setup lang="ts">
/** Rooms or sections by days and hours of a week; captures are placed, moved and made longer on it. */
import { stateWord } from '~~/core/capture/states'
import { mayChange } from '~~/core/timetable/change'
import { addDays, notTeaching, wallOf } from '~~/core/term/calendar'
import { minutesOf, timeOf } from '~~/core/term/days'
import type { CaptureView } from '~~/shared/timetable/views'
import { Board, type Block, type Spot } from '~/board/draw'
import { clamp, hoursFor, xOf, type Geometry } from '~/board/geometry'

export interface BoardRow { id: string, name: string, note: string }
export interface Placed { captureId: string, rowId: string, date: string, start: string, minutes: number }

const props = defineProps<{ rows: BoardRow[], by: 'rooms' | 'sections', monday: string, captures: CaptureView[], usual: number[], now: number, chosen?: string, mayPlan: boolean, draft?: { rowId: string, date: string, start: string, minutes: number } }>()
const emit = defineEmits<{ open: [id: string], moved: [to: Placed], drawn: [at: Omit<Placed, 'captureId'>] }>()
const me = useMe()
const term = useTerm()
/** Few rows are tall enough for names written upwards; sixty are as low as can still be hit. */
const height = ref(500)
const ROW = computed(() => clamp(Math.floor((height.value - 52) / Math.max(1, props.rows.length)), 30, 50))
const scroller = useTemplateRef('scroller')
const field = useTemplateRef('field')
const saying = ref('')
const zoom = ref(1)
const room = ref(900)
let board: Board | undefined

const placed = computed(() => props.captures.map((c) => {
  const wall = wallOf(me.zone, c.start)
  return { c, date: wall.date, time: wall.time, start: minutesOf(wall.time), minutes: Math.round((c.end - c.start) / 60_000) }
}))
/** Saturday and Sunday are shown when something lies on them. */
const dates = computed(() => {
  const last = Math.max(4, ...placed.value.map((p) => [5, 6].find((i) => addDays(props.monday, i) === p.date) ?? 0))
  return Array.from({ length: last + 1 }, (_, i) => addDays(props.monday, i))
})
const g = computed<Geometry>(() => ({
  dates: dates.value, ...hoursFor(placed.value.map((p) => ({ from: p.start, to: p.start + p.minutes }))), rowHeight: ROW.value,
  dayWidth: Math.max(190, (room.value - 2) / dates.value.length) * zoom.value,
}))
const rowAt = computed(() => new Map(props.rows.map((r, i) => [r.id, i])))
const blocks = computed<Block[]>(() => placed.value.flatMap(({ c, date, time, start, minutes }) => {
  const row = rowAt.value.get(props.by === 'rooms' ? c.roomId : c.sectionId)
  const day = dates.value.indexOf(date)
  if (row === undefined || day < 0) return []
  return [{
    id: c.id, row, day, start, minutes, label: `${signOf(c.state)}${props.by === 'rooms' ? c.section : c.room}`, short: props.by === 'rooms' ? c.section.split('/')[0]!.replace('-', '') : c.room.slice(0, 7), look: `${lookOf(c.state)}${c.id === props.chosen ? ' board-chosen' : ''}`,
    movable: props.mayPlan && mayChange({ state: c.state, start: c.start } as never, props.now),
    says: `${c.section} ${c.course}, ${c.room}, ${dateWords(date)} ${time} to ${timeOf(start + minutes)}, ${c.presenter}, ${stateWord[c.state]}`,
  }]
}))
const options = computed(() => ({ usual: props.usual, rowMoves: props.by === 'rooms', mayPlan: props.mayPlan && props.by === 'rooms', rowNames: props.rows.map((r) => r.name) }))
const hours = computed(() => {
  const step = g.value.dayWidth > 420 ? 60 : g.value.dayWidth > 200 ? 120 : 240
  return dates.value.flatMap((date, day) => Array.from({ length: Math.ceil((g.value.to - g.value.from) / step) }, (_, i) => g.value.from + i * step).map((minutes) => ({ key: `${date} ${minutes}`, x: xOf(g.value, day, minutes), text: timeOf(minutes).slice(0, 2) })))
})
const days = computed(() => dates.value.map((date, i) => ({ date, left: i * g.value.dayWidth, off: term.view ? notTeaching(term.view.term, date) : undefined })))
const nowX = computed(() => {
  const wall = wallOf(me.zone, props.now)
  const day = dates.value.indexOf(wall.date)
  const minutes = minutesOf(wall.time)
  return day < 0 || minutes < g.value.from || minutes > g.value.to ? null : xOf(g.value, day, minutes)
})
const draftBox = computed(() => {
  const day = props.draft ? dates.value.indexOf(props.draft.date) : -1
  const row = props.draft ? rowAt.value.get(props.draft.rowId) : undefined
  if (!props.draft || day < 0 || row === undefined || !/^\d\d:\d\d$/.test(props.draft.start)) return null
  const left = xOf(g.value, day, minutesOf(props.draft.start))
  return { left: `${left}px`, top: `${row * ROW.value + 1}px`, width: `${xOf(g.value, day, minutesOf(props.draft.start) + props.draft.minutes) - left}px`, height: `${ROW.value - 2}px` }
})

const spotWords = (to: Spot) => ({ rowId: props.rows[to.row]!.id, date: dates.value[to.day]!, start: timeOf(to.start), minutes: to.minutes })
onMounted(() => {
  board = new Board(field.value!, g.value, options.value, {
    open: (id) => emit('open', id),
    moved: (captureId, to) => emit('moved', { captureId, ...spotWords(to) }),
    drawn: (to) => emit('drawn', spotWords(to)),
    saying: (text) => (saying.value = text),
  })
  const watchWidth = new ResizeObserver(([entry]) => {
    room.value = Math.max(400, entry!.contentRect.width - 152)
    height.value = entry!.contentRect.height
  })
  watchWidth.observe(scroller.value!)
  onScopeDispose(() => watchWidth.disconnect())
  watch([blocks, g, options], () => {
    board!.draw(blocks.value, g.value, options.value)
    requestAnimationFrame(() => requestAnimationFrame(() => performance.mark('board-painted')))
  }, { immediate: true })
})

/** Zooms around the middle of what is seen. */
function zoomBy(factor: number) {
  const box = scroller.value!
  const middle = (box.scrollLeft + box.clientWidth / 2) / g.value.dayWidth
  zoom.value = clamp(zoom.value * factor, 1, 6)
  void nextTick(() => (box.scrollLeft = middle * g.value.dayWidth - box.clientWidth / 2))
}
function onKey(event: KeyboardEvent) {
  if (event.key === '+' || event.key === '=') zoomBy(1.5)
  if (event.key === '-') zoomBy(1 / 1.5)
}
</script>

<template>
  <div class="flex h-full min-h-0 flex-col">
    <div ref="scroller" class="board relative min-h-0 flex-1 overflow-auto" @keydown="onKey" @wheel.ctrl.prevent="zoomBy($event.deltaY < 0 ? 1.2 : 1 / 1.2)">
      <div class="grid w-max min-w-full grid-cols-[150px_auto]">
        <div class="sticky top-0 left-0 z-30 border-b border-silt bg-mist px-3 pt-1"><span class="inline-flex gap-1"><button type="button" class="btn btn-small px-2!" aria-label="Wider: fewer hours, more detail" :disabled="zoom >= 6" @click="zoomBy(1.5)">+</button><button type="button" class="btn btn-small px-2!" aria-label="Narrower: more hours at once" :disabled="zoom <= 1" @click="zoomBy(1 / 1.5)">−</button></span></div>
        <div class="sticky top-0 z-20 h-[44px] border-b border-silt bg-mist" :style="{ width: `${g.dayWidth * dates.length}px` }">
          <div v-for="day in days" :key="day.date" class="absolute top-0 border-l border-silt pl-1.5 font-bold whitespace-nowrap" :style="{ left: `${day.left}px` }">{{ dateWords(day.date) }} <span v-if="day.off" class="quiet font-normal">{{ day.off }}</span></div>
          <span v-for="h in hours" :key="h.key" aria-hidden="true" class="num absolute top-[23px] text-[12px] text-slate" :style="{ left: `${h.x + 2}px` }">{{ h.text }}</span>
          <span v-if="nowX !== null" class="absolute top-[40px] size-1.5 -translate-x-1/2 rounded-full bg-ink" :style="{ left: `${nowX}px` }" />
        </div>
        <ul class="sticky left-0 z-10 bg-mist" :aria-label="by === 'rooms' ? 'Rooms' : 'Sections'">
          <li v-for="row in rows" :key="row.id" class="flex items-baseline gap-1.5 overflow-hidden border-b border-marl px-3 whitespace-nowrap" :style="{ height: `${ROW}px`, lineHeight: `${ROW - 1}px` }" :title="`${row.name}, ${row.note}`">
            <span class="font-semibold" :class="by === 'rooms' || row.name.length > 14 ? 'truncate' : 'shrink-0'">{{ row.name }}</span><span class="quiet" :class="by === 'rooms' ? 'shrink-0' : 'truncate'">{{ row.note }}</span>
          </li>
        </ul>
        <div class="relative" :style="{ width: `${g.dayWidth * dates.length}px`, height: `${rows.length * ROW}px` }">
          <div v-for="day in days" :key="day.date" aria-hidden="true" class="absolute inset-y-0 border-l border-silt" :class="{ 'off-day': day.off }" :style="{ left: `${day.left}px`, width: `${g.dayWidth}px` }" />
          <div ref="field" class="board-field absolute inset-0" :style="{ '--row': `${ROW}px` }" :class="{ 'cursor-cell': options.mayPlan }" role="group" aria-label="Captures of the week: arrow keys go from one to the next, Enter opens, M picks one up to move it" />
          <div v-if="draftBox" class="pointer-events-none absolute z-10 rounded-[4px] border-2 border-[#14222a] bg-lichen" :style="draftBox" />
          <span v-if="nowX !== null" class="pointer-events-none absolute inset-y-0 w-0.5 bg-ink" :style="{ left: `${nowX}px` }" />
        </div>
      </div>
    </div>
    <p class="sr-only" role="status">{{ saying }}</p>
  </div>
</template>

<style>
.board-field { background-image: repeating-linear-gradient(to bottom, transparent 0 calc(var(--row) - 1px), var(--marl) calc(var(--row) - 1px) var(--row)); }
.board-block { position: absolute; overflow: hidden; padding: 0 4px; border-radius: 4px; font-size: 12px; font-weight: 650; line-height: calc(var(--row) - 8px); text-align: left; white-space: nowrap; text-overflow: ellipsis; contain: strict; }
.board-upright { padding: 0; text-overflow: clip; letter-spacing: -.3px; writing-mode: vertical-rl; line-height: 11px; font-size: 10px; text-align: center; }
.board-movable::after { content: ""; position: absolute; inset: 0 0 0 auto; width: 7px; cursor: ew-resize; }
.board-movable:active { cursor: grabbing; }
.board-chosen { box-shadow: 0 0 0 2px var(--ink), 0 0 0 5px var(--lichen); z-index: 5; }
.board-block:focus-visible { z-index: 6; }
.board-ghost { position: absolute; top: 0; left: 0; z-index: 8; pointer-events: none; overflow: visible; padding: 0 4px; border: 2px solid #14222a; border-radius: 4px; background: var(--lichen); color: #14222a; font: 600 12px/calc(var(--row) - 6px) var(--font-mono); white-space: nowrap; will-change: transform; }
.off-day { background-image: repeating-linear-gradient(135deg, transparent 0 8px, color-mix(in srgb, var(--edge) 18%, transparent) 8px 11px); }
</style>
