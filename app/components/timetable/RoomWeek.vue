<script setup lang="ts">
/**
 * One room's week: days × hours. Dragging over free time (or a click) says when a new capture shall
 * be; the form beside does the same for keyboards.
 */
import { scaleLinear } from 'd3-scale'
import { stateWord } from '~~/core/capture/states'
import { addDays, notTeaching, wallOf } from '~~/core/term/calendar'
import { minutesOf, timeOf } from '~~/core/term/days'
import type { CaptureView, RoomView } from '~~/shared/timetable/views'

export interface Draft { date: string, start: string, minutes: number }

const props = defineProps<{ room: RoomView, monday: string, captures: CaptureView[], draft?: Draft, now: number, chosen?: string, mayPlan: boolean }>()
const emit = defineEmits<{ open: [id: string], draft: [draft: Draft] }>()
const me = useMe()
const term = useTerm()

const FROM = 8
const TO = 19
const SNAP = 5
const y = scaleLinear().domain([FROM * 60, TO * 60]).range([0, 100])
const hours = Array.from({ length: TO - FROM }, (_, i) => FROM + i)
const time = (instant: number) => wallOf(me.zone, instant).time

const days = computed(() => [0, 1, 2, 3, 4].map((i) => {
  const date = addDays(props.monday, i)
  return { date, off: term.view ? notTeaching(term.view.term, date) : undefined, captures: props.captures.filter((c) => wallOf(me.zone, c.start).date === date) }
}))
const today = computed(() => wallOf(me.zone, props.now))
const block = (start: number, minutes: number) => ({ top: `${y(start)}%`, height: `calc(${y(start + minutes) - y(start)}% - 2px)` })
const blockOf = (c: CaptureView) => block(minutesOf(time(c.start)), (c.end - c.start) / 60_000)

/** A drag over free time that is going on: minutes of the day. */
const drag = ref<{ date: string, from: number, to: number } | null>(null)
function at(event: PointerEvent): number {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return Math.round(y.invert((event.clientY - box.top) / box.height * 100) / SNAP) * SNAP
}
function begin(event: PointerEvent, date: string) {
  if (!props.mayPlan || event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  const from = Math.floor(at(event) / 30) * 30
  drag.value = { date, from, to: from }
}
function move(event: PointerEvent) {
  if (drag.value) drag.value = { ...drag.value, to: Math.min(TO * 60, Math.max(drag.value.from, at(event))) }
}
function end() {
  if (!drag.value) return
  const { date, from, to } = drag.value
  emit('draft', { date, start: timeOf(from), minutes: to - from >= 15 ? to - from : 50 })
  drag.value = null
}
const shownDraft = computed(() => (drag.value ? { date: drag.value.date, start: drag.value.from, minutes: Math.max(15, drag.value.to - drag.value.from) } : props.draft && props.draft.date ? { date: props.draft.date, start: minutesOf(props.draft.start || '00:00'), minutes: props.draft.minutes } : null))
</script>

<template>
  <div class="grid h-full min-h-[620px] min-w-[660px] grid-cols-[64px_repeat(5,minmax(0,1fr))] grid-rows-[32px_minmax(0,1fr)]">
    <div />
    <div v-for="day in days" :key="day.date" class="border-l border-silt px-2.5 pt-1.5 font-bold" :class="{ 'bg-lichen-wash': day.date === today.date }">
      {{ dateWords(day.date) }} <span v-if="day.off" class="quiet font-normal">{{ day.off }}</span>
    </div>
    <div class="relative" aria-hidden="true">
      <span v-for="hour in hours" :key="hour" class="num absolute right-2 -translate-y-1/2 text-[12.5px] text-slate" :style="{ top: `${y(hour * 60)}%` }">{{ timeOf(hour * 60) }}</span>
    </div>
    <div v-for="day in days" :key="day.date" class="relative touch-pan-y border-l border-silt" :class="[day.date === today.date ? 'bg-lichen-wash' : '', { 'off-day': day.off, 'cursor-cell': mayPlan }]"
      @pointerdown.self="begin($event, day.date)" @pointermove="move" @pointerup="end" @pointercancel="drag = null">
      <span v-for="hour in hours" :key="hour" class="pointer-events-none absolute inset-x-0 border-t border-silt" :style="{ top: `${y(hour * 60)}%` }" />
      <span v-if="day.date === today.date && y(minutesOf(today.time)) >= 0 && y(minutesOf(today.time)) <= 100" class="pointer-events-none absolute inset-x-0 h-0.5 bg-ink" :style="{ top: `${y(minutesOf(today.time))}%` }" />
      <button v-for="c in day.captures" :key="c.id" type="button" class="absolute inset-x-1 flex flex-col overflow-hidden rounded-[5px] px-2 pt-0.5 text-left leading-tight" :class="[lookOf(c.state), { 'ring-3 ring-lichen outline-2 outline-[#14222a]': c.id === chosen }]"
        :style="blockOf(c)" :aria-label="`${c.section} ${c.course}, ${dateWords(day.date)} ${time(c.start)} to ${time(c.end)}, ${c.presenter}, ${stateWord[c.state]}`" @click="emit('open', c.id)">
        <span v-if="c.state === 'recording'" class="absolute top-0 left-0 w-1.5 bg-ember" :style="{ height: `${Math.min(100, (now - c.start) / (c.end - c.start) * 100)}%` }" />
        <span class="block shrink-0 truncate text-[13.5px] font-bold" :class="{ 'pl-1.5': c.state === 'recording' }">{{ signOf(c.state) }}{{ c.section }}</span>
        <span class="block truncate text-[12.5px]" :class="{ 'pl-1.5': c.state === 'recording' }">{{ c.state === 'recording' ? `recording, until ${time(c.end)}` : c.presenter }}</span>
      </button>
      <div v-if="shownDraft && shownDraft.date === day.date && y(shownDraft.start) >= 0" class="pointer-events-none absolute inset-x-1 z-10 overflow-hidden rounded-[5px] border-2 border-[#14222a] bg-lichen px-2 leading-tight text-[#14222a]" :style="block(shownDraft.start, shownDraft.minutes)">
        <span class="block text-[13px] font-bold">new</span><span class="num block text-[12.5px]">{{ timeOf(shownDraft.start) }}–{{ timeOf(shownDraft.start + shownDraft.minutes) }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.off-day { background-image: repeating-linear-gradient(135deg, transparent 0 8px, color-mix(in srgb, var(--edge) 18%, transparent) 8px 11px); }
</style>
