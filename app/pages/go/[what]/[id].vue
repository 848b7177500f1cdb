<script setup lang="ts">
/** One address in every mail, which opens the right view for whoever reads it. */
import type { CaptureView } from '~~/shared/timetable/views'
import { mondayOf, wallOf } from '~~/core/term/calendar'

const route = useRoute()
const me = useMe()
const sentence = ref('')
const { what, id } = route.params as { what: string, id: string }
onMounted(async () => {
  try {
    if (what === 'recording') return await navigateTo(me.role === 'student' ? `/watch/${id}` : `/recordings/${id}`, { replace: true })
    const capture = await api<CaptureView>(`/api/captures/${id}`)
    if (capture.recordingId) return await navigateTo(me.role === 'student' ? `/watch/${capture.recordingId}` : `/recordings/${capture.recordingId}`, { replace: true })
    if (me.role === 'student') return await navigateTo('/new', { replace: true })
    await navigateTo({ path: '/timetable', query: { by: 'sections', weeks: mondayOf(wallOf(me.zone, capture.start).date), capture: id } }, { replace: true })
  } catch (error) {
    sentence.value = error instanceof ApiError && error.status === 404 ? 'This capture is no longer there, or it is not yours to see.' : sentenceOf(error)
  }
})
</script>

<template>
  <div class="p-4"><p v-if="!sentence" role="status" class="text-slate">Opening…</p><EmptyPlace v-else title="Nothing to open">{{ sentence }} <NuxtLink to="/">Go to the start</NuxtLink>.</EmptyPlace></div>
</template>
