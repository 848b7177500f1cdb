<script setup lang="ts">
/** Planning: the week of all rooms or sections, or of one room, with the bench for a plan or a change beside it. */
import { captureStates, stateWord } from '~~/core/capture/states'
import { addDays, instantOf, mondayOf, placeOf, wallOf, weekdayOf } from '~~/core/term/calendar'
import { PlanCaptures } from '~~/shared/timetable/plan-captures'
import type { CaptureDetails, CaptureView, PlanChoices } from '~~/shared/timetable/views'
import type { Proposed } from '~/components/timetable/ChangeForm.vue'
import type { BoardRow, Placed } from '~/components/timetable/PlanBoard.vue'
import type { Draft } from '~/components/timetable/RoomWeek.vue'

const me = useMe()
const term = useTerm()
const now = useCampusNow()
const address = useAddress()
const roomName = address.text('room')
const by = address.text('by')
const open = address.text('capture')
const changing = address.text('change')
const planning = address.text('plan')
const calendar = address.text('calendar')
const weeks = address.text('weeks')
const filters = { building: address.text('building'), course: address.text('course'), state: address.text('state') }

const { data: choices, error, refresh } = useLiveData(() => api<PlanChoices>(`/api/plans/choices?term=${term.view?.id ?? ''}`), () => false)
/** Instructors begin with their own sections: rooms show only what is theirs. */
const view = computed(() => (roomName.value ? 'room' : by.value === 'sections' || (me.role !== 'staff' && by.value !== 'rooms') ? 'sections' : 'rooms'))
const room = computed(() => choices.value?.rooms.find((r) => r.name === roomName.value))
const monday = computed(() => term.spanOf(weeks.value)?.first ?? term.firstMonday(mondayOf(wallOf(me.zone, now.value).date)))
const weekName = computed(() => (term.view && placeOf(term.view.term, monday.value).week?.label) || '')
const { data: found, error: capturesError, refresh: refreshCaptures } = useLiveData(
  () => api<CaptureView[]>(`/api/captures?from=${instantOf(me.zone, monday.value, '00:00')}&to=${instantOf(me.zone, addDays(monday.value, 7), '00:00')}`),
  (event) => event.topic === 'capture' || event.topic === 'timetable',
)
const buildings = computed(() => [...new Set(choices.value?.rooms.map((r) => r.building).filter(Boolean))].sort())
const courses = computed(() => [...new Set(choices.value?.sections.map((s) => s.course))])
const buildingOf = computed(() => new Map(choices.value?.rooms.map((r) => [r.id, r.building])))
/** While another week is asked for, the last one's captures are not shown under its name. */
const captures = computed(() => found.value?.filter((c) => {
  const { date } = wallOf(me.zone, c.start)
  return date >= monday.value && date < addDays(monday.value, 7)
    && (!filters.building.value || buildingOf.value.get(c.roomId) === filters.building.value)
    && (!filters.course.value || c.section.startsWith(`${filters.course.value}/`)) && (!filters.state.value || c.state === filters.state.value)
}) ?? null)
const rows = computed<BoardRow[]>(() => view.value === 'sections'
  ? (choices.value?.sections ?? []).filter((s) => !filters.course.value || s.course === filters.course.value).map((s) => ({ id: s.id, name: s.code, note: s.title }))
  : (choices.value?.rooms ?? []).filter((r) => !filters.building.value || r.building === filters.building.value).map((r) => ({ id: r.id, name: r.name, note: String(r.seats) })))
const chosen = computed(() => found.value?.find((c) => c.id === open.value))

const plan = reactive(new PlanCaptures())
function chooseRoom(id: string) {
  const next = choices.value?.rooms.find((r) => r.id === id)
  if (!next || plan.roomId === next.id) return
  plan.roomId = next.id
  plan.inputs = plan.inputs.length ? plan.inputs.filter((i) => next.inputs.includes(i)) : next.inputs.filter((i) => i !== 'document camera')
}
watch(() => room.value ?? choices.value?.rooms[0], (next) => next && (room.value || !plan.roomId) && chooseRoom(next.id), { immediate: true })

function change(part: Partial<PlanCaptures>) {
  // A rule begins with the weekday of the date that was chosen.
  if (part.repeat && part.repeat !== 'once' && !plan.weekdays.length) part.weekdays = [plan.date ? weekdayOf(plan.date) : 1]
  Object.assign(plan, part)
  if (part.roomId && room.value) address.set({ room: choices.value?.rooms.find((r) => r.id === part.roomId)?.name }, 'replace')
  if (part.date && /^\d{4}-\d\d-\d\d$/.test(part.date) && mondayOf(part.date) !== monday.value) address.set({ weeks: mondayOf(part.date) }, 'replace')
}
function takeDraft(draft: Draft) {
  Object.assign(plan, draft, plan.repeat === 'once' ? {} : { weekdays: [weekdayOf(draft.date)] }, { exceptions: {}, leftOut: [] })
  address.set({ plan: '1', capture: undefined, change: undefined }, planning.value ? 'replace' : 'push')
}
function drawn({ rowId, date, start, minutes }: Omit<Placed, 'captureId'>) {
  chooseRoom(rowId)
  takeDraft({ date, start, minutes })
}
function beginPlan() {
  if (!plan.date) plan.date = wallOf(me.zone, now.value).date < monday.value ? monday.value : wallOf(me.zone, now.value).date
  address.set({ plan: '1', capture: undefined, change: undefined, calendar: undefined })
}
function planned() {
  Object.assign(plan, { title: '', start: '', leftOut: [], exceptions: {} })
  void refreshCaptures()
}

const details = shallowRef<CaptureDetails | null>(null)
const proposed = shallowRef<Proposed>()
watch([open, changing], async () => {
  details.value = null
  if (!open.value || !changing.value) return
  details.value = await api<CaptureDetails>(`/api/captures/${open.value}`).catch((problem: unknown) => {
    useToasts().show(sentenceOf(problem))
    return null
  })
}, { immediate: true })
function moved(to: Placed) {
  proposed.value = { date: to.date, start: to.start, minutes: to.minutes, ...(view.value === 'rooms' ? { roomId: to.rowId } : {}) }
  address.set({ capture: to.captureId, change: '1', plan: undefined })
}
function beginChange() {
  proposed.value = undefined
  address.set({ change: '1', plan: undefined })
}
function closeChange() {
  proposed.value = undefined
  address.set({ change: undefined })
}
const week = (days: number) => address.set({ weeks: addDays(monday.value, days) })
const value = (event: Event) => (event.target as HTMLSelectElement).value || undefined
useHead({ title: () => `Timetable${room.value ? `, ${room.value.name}` : ''} · Karstland` })
</script>

<template>
  <div class="flex h-full min-h-0">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex flex-wrap items-center gap-x-3 gap-y-2 px-4 pt-3 pb-2">
        <h1>{{ room?.name ?? 'Timetable' }}<span v-if="!room" class="font-normal">, {{ weekName || dateWords(monday) }}</span></h1>
        <template v-if="room"><span class="tag"><span class="num">{{ room.seats }}</span> seats</span><span v-for="input in room.inputs" :key="input" class="tag max-lg:hidden">{{ input }}</span></template>
        <span class="flex gap-1"><button type="button" class="btn btn-small" aria-label="The week before" @click="week(-7)">◂</button><button type="button" class="btn btn-small" aria-label="The week after" @click="week(7)">▸</button></span>
        <div class="ml-auto flex flex-wrap items-center gap-2">
          <button type="button" class="btn" @click="address.set({ calendar: '1', plan: undefined, change: undefined })">Calendar link</button>
          <TimetableMenu />
          <button v-if="!planning" type="button" class="btn btn-main" :disabled="!choices" @click="beginPlan">New capture plan</button>
        </div>
      </div>
      <div class="flex flex-wrap items-center gap-2 px-4 pb-2">
        <div class="flex" role="group" aria-label="Shown by">
          <button type="button" class="btn btn-small rounded-r-none!" :class="{ 'border-pool! bg-pool-wash!': view === 'rooms' }" :aria-pressed="view === 'rooms'" @click="address.set({ by: me.role === 'staff' ? undefined : 'rooms', room: undefined })">By room</button>
          <button type="button" class="btn btn-small -ml-px rounded-l-none!" :class="{ 'border-pool! bg-pool-wash!': view === 'sections' }" :aria-pressed="view === 'sections'" @click="address.set({ by: 'sections', room: undefined })">By section</button>
        </div>
        <select class="field w-auto! min-h-[27px]! py-0!" aria-label="One room alone" :value="room?.name ?? ''" @change="address.set({ room: value($event), capture: undefined, change: undefined })">
          <option value="">all rooms</option><option v-for="r in choices?.rooms" :key="r.id">{{ r.name }}</option>
        </select>
        <select v-if="buildings.length > 1" class="field w-auto! min-h-[27px]! py-0!" aria-label="Building" :value="filters.building.value ?? ''" @change="address.set({ building: value($event) })">
          <option value="">every building</option><option v-for="b in buildings" :key="b">{{ b }}</option>
        </select>
        <select class="field w-auto! min-h-[27px]! py-0!" aria-label="Course" :value="filters.course.value ?? ''" @change="address.set({ course: value($event) })">
          <option value="">every course</option><option v-for="c in courses" :key="c">{{ c }}</option>
        </select>
        <select class="field w-auto! min-h-[27px]! py-0!" aria-label="State" :value="filters.state.value ?? ''" @change="address.set({ state: value($event) })">
          <option value="">every state</option><option v-for="s in captureStates.filter((x) => x !== 'left_out' && x !== 'cancelled')" :key="s" :value="s">{{ stateWord[s] }}</option>
        </select>
        <StateLegend class="ml-auto max-xl:hidden" />
      </div>
      <TroubleNote v-if="error || capturesError" :sentence="error || capturesError" @again="refresh(); refreshCaptures()" />
      <div v-else-if="!choices || !captures" class="grid flex-1 grid-cols-5 gap-2 p-4" role="status" aria-label="The week is opening"><div v-for="i in 5" :key="i" class="waiting" /></div>
      <EmptyPlace v-else-if="!choices.rooms.length" title="No rooms yet">Rooms with their inputs and recorders come first. <NuxtLink to="/set-up/rooms">Set up rooms</NuxtLink>, then plan captures in them.</EmptyPlace>
      <div v-else-if="room" class="min-h-0 flex-1 overflow-auto pb-3">
        <RoomWeek :room="room" :monday="monday" :captures="captures.filter((c) => c.roomId === room!.id)" :draft="planning ? plan : undefined" :now="now" :chosen="open" may-plan @open="address.set({ capture: $event, plan: undefined, change: undefined })" @draft="takeDraft" />
      </div>
      <PlanBoard v-else class="min-h-0 flex-1" :rows="rows" :by="view === 'sections' ? 'sections' : 'rooms'" :monday="monday" :captures="captures" :usual="choices.hours.usualStarts" :now="now" :chosen="open" may-plan
        :draft="planning && view === 'rooms' ? { rowId: plan.roomId, date: plan.date, start: plan.start, minutes: plan.minutes } : undefined"
        @open="address.set({ capture: $event, plan: undefined, change: undefined, calendar: undefined })" @moved="moved" @drawn="drawn" />
    </div>
    <PlanForm v-if="planning && choices" :choices="choices" :plan="plan" @change="change" @planned="planned" @close="address.set({ plan: undefined })" />
    <CalendarBench v-else-if="calendar && choices" :choices="choices" :room-id="room?.id" @close="address.set({ calendar: undefined })" />
    <ChangeForm v-else-if="changing && details && choices" :key="`${details.id} ${JSON.stringify(proposed)}`" :capture="details" :choices="choices" :proposed="proposed" @close="closeChange" @changed="closeChange(); refreshCaptures()" />
    <CaptureBench v-else-if="chosen" :key="chosen.id" :capture="chosen" may-plan @close="address.set({ capture: undefined })" @changed="refreshCaptures" @change="beginChange" />
  </div>
</template>
