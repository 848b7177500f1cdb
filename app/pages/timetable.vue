<script setup lang="ts">
/** Planning: a room's week, and the form for one capture beside it. */
import { addDays, instantOf, mondayOf, wallOf } from '~~/core/term/calendar'
import { PlanCapture } from '~~/shared/timetable/plan-capture'
import type { CaptureView, PlanChoices } from '~~/shared/timetable/views'
import type { Draft } from '~/components/timetable/RoomWeek.vue'

const me = useMe()
const term = useTerm()
const now = useCampusNow()
const address = useAddress()
const roomName = address.text('room')
const open = address.text('capture')
const planning = address.text('plan')
const weeks = address.text('weeks')

const { data: choices, error, refresh } = useLiveData(() => api<PlanChoices>('/api/plan/choices'), () => false)
const room = computed(() => choices.value?.rooms.find((r) => r.name === roomName.value) ?? choices.value?.rooms[0])
const monday = computed(() => term.spanOf(weeks.value)?.first ?? mondayOf(wallOf(me.zone, now.value).date))
const { data: captures, error: capturesError, refresh: refreshCaptures } = useLiveData(
  () => api<CaptureView[]>(`/api/captures?from=${instantOf(me.zone, monday.value, '00:00')}&to=${instantOf(me.zone, addDays(monday.value, 7), '00:00')}`),
  (event) => event.topic === 'capture',
)
const inRoom = computed(() => captures.value?.filter((c) => c.roomId === room.value?.id) ?? [])
const chosen = computed(() => captures.value?.find((c) => c.id === open.value))

const plan = reactive(new PlanCapture())
watch(room, (next) => {
  if (!next || plan.roomId === next.id) return
  plan.roomId = next.id
  plan.inputs = plan.inputs.length ? plan.inputs.filter((i) => next.inputs.includes(i)) : next.inputs.filter((i) => i !== 'document camera')
}, { immediate: true })

function change(part: Partial<PlanCapture>) {
  Object.assign(plan, part)
  if (part.roomId) address.set({ room: choices.value?.rooms.find((r) => r.id === part.roomId)?.name }, 'replace')
  if (part.date && /^\d{4}-\d\d-\d\d$/.test(part.date) && mondayOf(part.date) !== monday.value) address.set({ weeks: mondayOf(part.date) }, 'replace')
}

function takeDraft(draft: Draft) {
  Object.assign(plan, draft)
  address.set({ plan: '1', capture: undefined }, planning.value ? 'replace' : 'push')
}

function beginPlan() {
  if (!plan.date) plan.date = wallOf(me.zone, now.value).date < monday.value ? monday.value : wallOf(me.zone, now.value).date
  address.set({ plan: '1', capture: undefined })
}

function planned() {
  Object.assign(plan, { topic: '', start: '' })
  void refreshCaptures()
}
const week = (days: number) => address.set({ weeks: addDays(monday.value, days) })
useHead({ title: () => `Timetable, ${room.value?.name ?? ''} · Karstland` })
</script>

<template>
  <div class="flex h-full min-h-0">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex flex-wrap items-center gap-2 px-4 pt-3 pb-2">
        <h1>{{ room?.name ?? 'Timetable' }}</h1>
        <template v-if="room"><span class="tag"><span class="num">{{ room.seats }}</span> seats</span><span v-for="input in room.inputs" :key="input" class="tag max-lg:hidden">{{ input }}</span></template>
        <div class="ml-auto flex flex-wrap gap-2">
          <label class="flex items-center gap-1.5"><span class="quiet">Room</span>
            <select class="field w-auto!" :value="room?.name" @change="address.set({ room: ($event.target as HTMLSelectElement).value, capture: undefined })">
              <option v-for="r in choices?.rooms" :key="r.id">{{ r.name }}</option>
            </select>
          </label>
          <span class="flex gap-1"><button type="button" class="btn" aria-label="The week before" @click="week(-7)">◂</button><button type="button" class="btn" aria-label="The week after" @click="week(7)">▸</button></span>
          <button v-if="!planning" type="button" class="btn btn-main" :disabled="!choices" @click="beginPlan">Plan a capture</button>
        </div>
      </div>
      <TroubleNote v-if="error || capturesError" :sentence="error || capturesError" @again="refresh(); refreshCaptures()" />
      <div v-else-if="!room || !captures" class="grid flex-1 grid-cols-5 gap-2 p-4" role="status" aria-label="The week is opening"><div v-for="i in 5" :key="i" class="waiting" /></div>
      <div v-else class="min-h-0 flex-1 overflow-auto pb-3">
        <RoomWeek :room="room" :monday="monday" :captures="inRoom" :draft="planning ? plan : undefined" :now="now" :chosen="open" may-plan @open="address.set({ capture: $event, plan: undefined })" @draft="takeDraft" />
      </div>
    </div>
    <PlanForm v-if="planning && choices" :choices="choices" :plan="plan" @change="change" @planned="planned" @close="address.set({ plan: undefined })" />
    <CaptureBench v-else-if="chosen" :key="chosen.id" :capture="chosen" @close="address.set({ capture: undefined })" @changed="refreshCaptures" />
  </div>
</template>
