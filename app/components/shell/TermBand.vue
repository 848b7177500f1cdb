<script setup lang="ts">
/**
 * The term as a band of weeks: how much is captured each day, and where something went wrong.
 * Choosing a week, or dragging over several, is a filter that every place understands.
 */
import { scaleLinear } from 'd3-scale'
import { addDays, mondayOf, wallOf } from '~~/core/term/calendar'

const term = useTerm()
const me = useMe()
const now = useCampusNow()
const address = useAddress()
const chosen = address.text('weeks')

const today = computed(() => wallOf(me.zone, now.value).date)
const byDay = computed(() => new Map(term.view?.days.map((d) => [d.date, d])))
const height = computed(() => scaleLinear().domain([0, Math.max(1, ...(term.view?.days ?? []).map((d) => d.captures))]).range([0, 26]))

const weeks = computed(() => (term.view?.weeks ?? []).map((week) => {
  const days = [0, 1, 2, 3, 4].map((i) => {
    const date = addDays(week.monday, i)
    const day = byDay.value.get(date)
    return { date, h: height.value(day?.captures ?? 0), captures: day?.captures ?? 0, trouble: day?.trouble ?? 0, past: date < today.value, today: date === today.value }
  })
  const captures = days.reduce((sum, d) => sum + d.captures, 0)
  const trouble = days.reduce((sum, d) => sum + d.trouble, 0)
  return { ...week, days, captures, trouble, now: mondayOf(today.value) === week.monday }
}))

/** Mondays chosen, by the address or by a drag that is going on. */
const drag = ref<{ from: number, to: number } | null>(null)
const span = computed(() => {
  if (drag.value) return [Math.min(drag.value.from, drag.value.to), Math.max(drag.value.from, drag.value.to)] as const
  const [first, last] = (chosen.value ?? '').split('_')
  const at = (monday: string | undefined) => weeks.value.findIndex((w) => w.monday === monday)
  return [at(first), at(last ?? first)] as const
})
const isChosen = (i: number) => span.value[0] >= 0 && i >= span.value[0] && i <= span.value[1]

function choose(from: number, to: number) {
  const [a, b] = from <= to ? [from, to] : [to, from]
  const first = weeks.value[a]!.monday
  const last = weeks.value[b]!.monday
  const value = first === last ? first : `${first}_${last}`
  address.set({ weeks: value === chosen.value ? undefined : value, day: undefined })
}

function chooseTerm(id: string) {
  const current = term.choices.find((t) => t.id === id)?.current
  address.set({ term: current ? undefined : id, weeks: undefined, day: undefined })
}

function endDrag() {
  if (drag.value) choose(drag.value.from, drag.value.to)
  drag.value = null
}

function describe(week: typeof weeks.value[number]): string {
  const trouble = week.trouble ? `, ${plural(week.trouble, 'needs', 'need')} a person` : ''
  return `${week.label}, from ${dateWords(week.monday)}: ${plural(week.captures, 'capture')}${trouble}${week.now ? ', this week' : ''}`
}

function onKey(event: KeyboardEvent, i: number) {
  const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (event.key === 'Escape') return address.set({ weeks: undefined })
  if (!step) return
  event.preventDefault()
  const next = i + step
  if (!weeks.value[next]) return
  if (event.shiftKey && span.value[0] >= 0) choose(isChosen(i) && span.value[0] === i ? span.value[1] : span.value[0], next)
  ;(event.currentTarget as HTMLElement).parentElement?.querySelectorAll('button')[next]?.focus()
}
</script>

<template>
  <section aria-label="Term" class="flex h-[66px] bg-scarp text-white max-md:overflow-x-auto" @pointerup="endDrag" @pointerleave="drag = null">
    <div class="flex w-[195px] shrink-0 flex-col justify-center px-4 max-md:sticky max-md:left-0 max-md:z-10 max-md:w-[110px] max-md:bg-scarp max-md:px-2">
      <select v-if="term.choices.length > 1 && term.view" aria-label="Term" class="-ml-1 w-full rounded border border-transparent bg-scarp px-0.5 font-head text-[15px] font-semibold text-white hover:border-[#5f7679]" :value="term.view.id" @change="chooseTerm(($event.target as HTMLSelectElement).value)">
        <option v-for="t in term.choices" :key="t.id" :value="t.id">{{ t.name }}</option>
      </select>
      <p v-else class="font-head text-[15px] font-semibold">{{ term.view?.term.name ?? 'Term' }}</p>
      <p class="text-[12.5px] text-[#b9c7c5] max-md:sr-only">
        <template v-if="term.view">{{ plural(term.view.weeks.filter((w) => w.number).length, 'week') }} · {{ plural(term.view.captures, 'capture') }}</template>
        <template v-else-if="term.error">{{ term.error }}</template>
        <template v-else>opening…</template>
      </p>
    </div>
    <div v-if="term.view" role="group" aria-label="Weeks; arrow keys move, Shift widens, Escape clears" class="flex min-w-0 flex-1 touch-pan-x py-1 pr-2">
      <button v-for="(week, i) in weeks" :key="week.monday" type="button" class="relative flex min-w-[56px] flex-1 items-start rounded-[5px] border-2 px-1 text-left select-none"
        :class="[isChosen(i) ? 'border-lichen bg-[#33474e]' : week.now ? 'border-[#5f7679]' : 'border-transparent hover:border-[#4a5f64]', { 'term-off': week.kind !== 'teaching' }]"
        :aria-pressed="isChosen(i)" :aria-label="describe(week)" :title="describe(week)"
        @pointerdown="drag = { from: i, to: i }" @pointerenter="drag && (drag.to = i)" @keydown="onKey($event, i)" @keydown.enter.prevent="choose(i, i)" @keydown.space.prevent="choose(i, i)">
        <span class="block text-[12.5px] leading-4 font-bold" :class="week.kind === 'teaching' ? 'text-white' : 'text-[#b9c7c5]'">{{ week.label }}</span>
        <svg viewBox="0 0 60 38" class="absolute inset-x-1 bottom-0.5 h-[34px] w-[calc(100%-8px)]" preserveAspectRatio="none" aria-hidden="true">
          <rect v-for="(day, d) in week.days" :key="day.date" :x="2 + d * 11.5" :y="38 - day.h" width="9" :height="day.h" :fill="day.today ? '#d3de4a' : day.past ? '#9fb6b6' : '#6c8688'" />
        </svg>
        <span v-for="(day, d) in week.days.map((x, k) => ({ ...x, k })).filter((x) => x.trouble)" :key="d" class="term-trouble" :style="{ left: `${8 + day.k * 17}%`, bottom: `${Math.min(30, day.h + 3)}px` }" />
      </button>
    </div>
    <div v-else class="waiting m-2 flex-1 opacity-20" />
  </section>
</template>

<style scoped>
.term-off { background-image: repeating-linear-gradient(135deg, transparent 0 6px, rgb(255 255 255 / 9%) 6px 9px); }
.term-trouble { position: absolute; width: 0; height: 0; border: 5px solid transparent; border-top-width: 0; border-bottom: 8px solid #ff8f78; }
</style>
