<script setup lang="ts">
/** The day: what every room records, and how it goes. */
import { addDays, instantOf, placeOf, wallOf } from '~~/core/term/calendar'
import { useIntervalFn } from '@vueuse/core'
import { isTrouble } from '~~/core/capture/states'
import type { RoomState } from '~~/shared/capture/views'
import type { CaptureView } from '~~/shared/timetable/views'

const me = useMe()
const term = useTerm()
const now = useCampusNow()
const address = useAddress()
const open = address.text('capture')
const weeks = address.text('weeks')
const wanted = address.text('day')

const today = computed(() => wallOf(me.zone, now.value).date)
/** The day asked for; else today, or the Monday of another week chosen on the band. */
const date = computed(() => {
  if (wanted.value && /^\d{4}-\d\d-\d\d$/.test(wanted.value)) return wanted.value
  const first = term.spanOf(weeks.value)?.first
  return !first || (first <= today.value && addDays(first, 7) > today.value) ? today.value : first
})
const week = computed(() => term.view && placeOf(term.view.term, date.value).week)

const { data: found, error, refresh } = useLiveData(
  () => api<CaptureView[]>(`/api/captures?from=${instantOf(me.zone, date.value, '00:00')}&to=${instantOf(me.zone, addDays(date.value, 1), '00:00')}`),
  (event) => event.topic === 'capture' || event.topic === 'timetable',
)
/** While another day is asked for, the last one's captures are not shown under its name. */
const captures = computed(() => found.value?.filter((c) => wallOf(me.zone, c.start).date === date.value) ?? null)
const { data: rooms, refresh: refreshRooms } = useLiveData(() => api<RoomState[]>('/api/rooms'), (event) => event.topic === 'recorder')
useIntervalFn(() => void refreshRooms(), 15_000)

const chosen = computed(() => captures.value?.find((c) => c.id === open.value))
const trouble = computed(() => captures.value?.filter((c) => isTrouble(c.state)).length ?? 0)
const silent = computed(() => rooms.value?.filter((r) => r.recorder && !r.answers).length ?? 0)
useHead({ title: () => `${dateWords(date.value)} · Karstland` })
</script>


<template>
  <div class="flex h-full min-h-0">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 pt-3 pb-2">
        <h1>{{ dateWords(date) }}<template v-if="week">, {{ week.number ? `week ${week.number}` : week.label }}</template></h1>
        <p v-if="captures" class="text-slate">{{ plural(captures.length, 'capture') }}<template v-if="trouble"> · <span class="text-ember-ink">▲ {{ trouble }} in trouble</span></template><template v-if="silent"> · <span class="text-ochre-ink">? {{ plural(silent, 'recorder') }} silent</span></template></p>
        <div class="flex gap-1">
          <button type="button" class="btn btn-small" aria-label="The day before" @click="address.set({ day: addDays(date, -1) })">◂</button>
          <button type="button" class="btn btn-small" :disabled="date === today" @click="address.set({ day: undefined, weeks: undefined })">Today</button>
          <button type="button" class="btn btn-small" aria-label="The day after" @click="address.set({ day: addDays(date, 1) })">▸</button>
        </div>
        <StateLegend class="ml-auto" />
      </div>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!captures || !rooms" class="space-y-2 p-4" aria-label="The day is opening" role="status"><div v-for="i in 9" :key="i" class="waiting h-9" /></div>
      <div v-else class="min-h-0 flex-1 overflow-auto">
        <DayBand :rooms="rooms" :captures="captures" :date="date" :now="now" :chosen="open" @open="address.set({ capture: $event })" />
        <EmptyPlace v-if="!captures.length" title="Nothing is captured on this day">
          <NuxtLink :to="{ path: '/timetable', query: { weeks: weeks } }">Plan a capture in Timetable</NuxtLink>, or choose another week on the band above.
        </EmptyPlace>
      </div>
    </div>
    <CaptureBench v-if="chosen" :key="chosen.id" :capture="chosen" :room="rooms?.find((r) => r.id === chosen!.roomId)" @close="address.set({ capture: undefined })" @changed="refresh" />
  </div>
</template>
