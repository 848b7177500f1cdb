<script setup lang="ts">
/** A recording's own page for those who look after it: the player, and all of the bench. */
import type { RecordingView } from '~~/shared/library/views'
import type { Refused, WatchView } from '~~/shared/watch/watch'

const id = useRoute().params.id as string
const { data: recording, error, refresh } = useLiveData(() => api<RecordingView>(`/api/recordings/${id}`), (e) => e.topic === 'recording' && e.id === id)
const stage = useTemplateRef('stage')
const work = useWork()
const under = computed(() => work.of(id))
watch(() => recording.value?.state, () => void stage.value?.look())

const ask = () => api<WatchView | Refused>(`/api/recordings/${id}/watch`)
async function report(positionS: number, spans: [number, number][]) {
  await api(`/api/recordings/${id}/progress`, { method: 'POST', body: { positionS, spans } })
}
useHead({ title: () => `${recording.value?.name ?? 'Recording'} · Karstland` })
</script>

<template>
  <div class="flex h-full min-h-0 max-md:flex-col">
    <TroubleNote v-if="error" :sentence="error" class="self-start" @again="refresh" />
    <div v-else class="min-w-0 flex-1 overflow-auto">
      <div class="@container h-[min(60vh,560px)]"><WatchStage ref="stage" :ask="ask" :report="report" /></div>
      <div class="px-4 py-3">
        <p v-if="recording" class="quiet"><NuxtLink :to="`/library?section=${recording.sectionId}`">{{ recording.section }} {{ recording.sectionTitle }}</NuxtLink></p>
        <h1>{{ recording?.name ?? 'Opening…' }}</h1>
        <p v-if="recording?.trouble" role="alert" class="mt-2 rounded bg-ember-wash px-3 py-2"><span class="text-ember-ink">▲ </span>{{ recording.trouble }}</p>
        <p v-else-if="under && under.state === 'running'" class="mt-2 flex items-center gap-2 text-slate"><ProgressBar :percent="under.percent" :label="under.title" /><span class="num">{{ Math.round(under.percent) }}%</span> {{ under.step }}</p>
      </div>
    </div>
    <aside v-if="recording" class="w-[404px] shrink-0 overflow-y-auto border-l border-silt bg-chalk p-4 max-md:w-full max-md:border-l-0" aria-label="Details">
      <RecordingDetails :recording="recording" @changed="(next) => (next ? (recording = next) : refresh())" />
    </aside>
  </div>
</template>
