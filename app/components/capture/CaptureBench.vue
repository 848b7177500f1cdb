<script setup lang="ts">
/** One capture beside the board: where it stands, and what can still be done to it. */
import { isTrouble, stateWord } from '~~/core/capture/states'
import { wallOf } from '~~/core/term/calendar'
import type { CaptureView } from '~~/shared/timetable/views'
import type { RoomState } from '~~/shared/capture/views'

const props = defineProps<{ capture: CaptureView, room?: RoomState }>()
const emit = defineEmits<{ close: [], changed: [] }>()
const me = useMe()
const toasts = useToasts()
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

async function setCancelled(cancelled: boolean) {
  try {
    await api(`/api/captures/${props.capture.id}/${cancelled ? 'cancel' : 'restore'}`, { method: 'POST' })
    if (cancelled) toasts.show(`Cancelled ${props.capture.section}, ${dateWords(wallOf(me.zone, props.capture.start).date)}`, { label: 'Undo', run: () => setCancelled(false) })
    else toasts.show('Back in the plan')
    emit('changed')
    if (cancelled) emit('close')
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}
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
      <button v-if="mayCancel" type="button" class="btn" @click="setCancelled(true)">Cancel this capture</button>
    </div>
  </BenchPanel>
</template>
