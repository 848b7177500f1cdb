<script setup lang="ts">
/**
 * What a viewer sees at a recording's place: the player, where the recording is while it cannot be
 * played yet, or why it cannot be watched. Turns into the player by itself.
 */
import { useIntervalFn } from '@vueuse/core'
import type { Grant, Refused, WatchView } from '~~/shared/watch/watch'

const props = defineProps<{
  ask: () => Promise<WatchView | Refused>
  report: (positionS: number, spans: [number, number][]) => Promise<void>
}>()
const emit = defineEmits<{ found: [view: WatchView | Refused] }>()
const RecordingPlayer = defineAsyncComponent(() => import('./RecordingPlayer.vue'))

const view = shallowRef<WatchView | Refused | null>(null)
const trouble = ref('')
const ready = computed(() => (view.value && 'grant' in view.value && view.value.grant ? view.value : null))
const refused = computed(() => (view.value && 'say' in view.value ? view.value : null))
const waiting = computed(() => (view.value && 'waiting' in view.value && !view.value.grant ? view.value : null))

async function look(): Promise<void> {
  try {
    const found = await props.ask()
    trouble.value = ''
    // A running player keeps its view: a new one would begin it anew.
    if (!(ready.value && 'grant' in found && found.grant)) view.value = found
    emit('found', found)
  } catch (error) {
    trouble.value = sentenceOf(error)
  }
}
async function renew(): Promise<Grant | null> {
  const found = await props.ask()
  if ('grant' in found && found.grant) return found.grant
  view.value = found
  return null
}
onMounted(look)
/** Asked again while it is not ready, and soon after it may have been released. */
useIntervalFn(() => {
  if (!ready.value && document.visibilityState === 'visible') void look()
}, 2500)
defineExpose({ look })
</script>

<template>
  <RecordingPlayer v-if="ready" :key="ready.recordingId" :view="ready" :renew="renew" :report="report" />
  <div v-else class="grid h-full min-h-[220px] w-full place-items-center bg-[#0a1318] p-6 text-center text-white">
    <div v-if="refused" class="max-w-[460px]">
      <h2 class="text-[19px]! text-white">{{ refused.title }}</h2>
      <p class="mt-1.5 text-[#cfdad8]">{{ refused.advice }}</p>
      <div class="mt-4"><slot name="refused" :refused="refused" /></div>
    </div>
    <div v-else-if="waiting" class="max-w-[460px]" role="status">
      <h2 class="text-[19px]! text-white">{{ { recording: 'Being recorded', coming_in: 'On its way', being_made: 'Being made ready', failed: 'Not available', ready: '' }[waiting.state] }}</h2>
      <p class="mt-1.5 text-[#cfdad8]">{{ waiting.waiting }}</p>
      <p v-if="waiting.percent !== null" class="mt-3 flex items-center justify-center gap-2"><ProgressBar :percent="waiting.percent" label="Being made ready" /><span class="num">{{ Math.round(waiting.percent) }}%</span></p>
    </div>
    <p v-else-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else role="status">Opening the recording…</p>
  </div>
</template>
