<script setup lang="ts">
/** One capture beside the board: where it stands, and what can still be done to it. */
import { isTrouble, stateWord } from '~~/core/capture/states'
import { wallOf } from '~~/core/term/calendar'
import type { CaptureDetails, CaptureView, Edited, EditView } from '~~/shared/timetable/views'
import type { RoomState } from '~~/shared/capture/views'

const props = defineProps<{ capture: CaptureView, room?: RoomState, mayPlan?: boolean }>()
const emit = defineEmits<{ close: [], changed: [], change: [] }>()
const me = useMe()
const toasts = useToasts()
const edits = useEdits()
const now = useCampusNow()
const time = (instant: number) => wallOf(me.zone, instant).time
const mayCancel = computed(() => ['planned', 'armed'].includes(props.capture.state) && props.capture.start > now.value)

const sentence = computed(() => {
  const { state, start, end, trouble } = props.capture
  if (trouble) return trouble
  if (state === 'planned' && start > now.value) return 'The recorder fetches its plan by itself; it has not confirmed this capture yet.'
  if (state === 'armed') return 'The recorder holds this capture and starts by itself, with or without the network.'
  if (state === 'recording') return `Recording until ${time(end)}. Its page exists already and turns into the player when it is made.`
  if (state === 'coming_in') return 'The recorder is sending the file.'
  if (state === 'being_made') return 'Streams are being made.'
  if (state === 'missed') return 'Its time went by and no recorder sent anything. If the recorder was away, the file may still come.'
  return ''
})

async function cancel(scope: 'one' | 'later') {
  try {
    edits.done(await api<Edited>(`/api/captures/${props.capture.id}/change`, { method: 'POST', body: { scope, cancelled: true } }))
    emit('changed')
    emit('close')
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}

const { data: details } = useLiveData(async () => (props.mayPlan ? api<CaptureDetails>(`/api/captures/${props.capture.id}`) : null), (e) => e.topic === 'timetable')
const { data: history } = useLiveData(async () => (props.mayPlan ? api<EditView[]>(`/api/edits?capture=${props.capture.id}`) : []), (e) => e.topic === 'timetable')
</script>

<template>
  <BenchPanel :title="`${capture.section} ${capture.course}`" @close="emit('close')">
    <p class="flex items-center gap-2">
      <span class="inline-block h-4 w-6 rounded-[3px]" :class="lookOf(capture.state)" aria-hidden="true" />
      <strong>{{ isTrouble(capture.state) ? '▲ ' : '' }}{{ stateWord[capture.state] }}</strong>
    </p>
    <p v-if="sentence" class="mt-1 text-slate">{{ sentence }}</p>
    <dl class="mt-4 grid grid-cols-[96px_1fr] gap-y-2">
      <dt class="text-slate">When</dt><dd>{{ momentWords(me.zone, capture.start) }}–{{ time(capture.end) }}</dd>
      <dt class="text-slate">Room</dt><dd>{{ capture.room }}</dd>
      <dt class="text-slate">Presenter</dt><dd>{{ capture.presenter }}</dd>
      <dt class="text-slate">Topic</dt><dd>{{ capture.topic || 'not given; the lecture number stands in' }}</dd>
      <dt class="text-slate">Takes in</dt><dd>{{ capture.inputs.join(', ') }}</dd>
      <template v-if="details?.plan"><dt class="text-slate">Plan</dt><dd>{{ details.plan }}<span v-if="capture.own.length" class="quiet block">its own by hand: {{ capture.own.join(', ') }}</span></dd></template>
      <template v-if="details?.told.length"><dt class="text-slate">Told</dt><dd>{{ details.told.map((p) => p.name).join(', ') }}</dd></template>
      <template v-if="room">
        <dt class="text-slate">Recorder</dt>
        <dd>
          <template v-if="room.answers">{{ room.state }}<template v-if="room.levelDb !== null">, sound <span class="num">{{ room.levelDb.toFixed(0) }}</span> LUFS</template></template>
          <template v-else-if="room.heardAt">has not answered since {{ time(room.heardAt) }}</template>
          <template v-else>has never answered</template>
        </dd>
      </template>
    </dl>
    <div class="mt-5 flex flex-wrap gap-2">
      <NuxtLink v-if="capture.recordingId" :to="`/recordings/${capture.recordingId}`" class="btn btn-main">Open the recording</NuxtLink>
      <button v-if="mayCancel && mayPlan" type="button" class="btn btn-main" @click="emit('change')">Change…</button>
      <button v-if="mayCancel" type="button" class="btn" @click="cancel('one')">Cancel this capture</button>
      <button v-if="mayCancel && details?.weekdays.length" type="button" class="btn" @click="cancel('later')">Cancel this and later ones</button>
    </div>
    <section v-if="history?.length" class="mt-5 border-t border-silt pt-3">
      <h2>What was changed</h2>
      <ul class="mt-1.5 space-y-1.5"><li v-for="h in history" :key="h.id" class="flex gap-2"><span class="num quiet w-[112px] shrink-0">{{ momentWords(me.zone, h.at) }}</span><span :class="{ 'text-slate line-through': h.undoneAt }">{{ h.sentence }} {{ h.who }}</span></li></ul>
    </section>
  </BenchPanel>
</template>
