<script setup lang="ts">
/** What a section settles for its recordings, in a line, with the way to change it. */
import type { SectionPage } from '~~/shared/term/section'

const props = defineProps<{ sectionId: string }>()
const { data } = useLiveData(() => api<SectionPage>(`/api/sections/${props.sectionId}`), () => false)
const words = computed(() => {
  const d = data.value?.defaults
  if (!d) return ''
  const released = d.release === 'held' ? 'held until released' : `released to the class list${d.captions ? ' when its captions are checked' : ''}${d.opensDays ? `, opens ${d.opensDays} days after` : ''}${d.closesDays ? `, closes ${d.closesDays} days after` : ''}`
  return [released, d.folderPattern ? `filed in “${d.folderPattern}”` : '', data.value!.told.length ? `${data.value!.told.map((p) => p.name).join(', ')} told` : ''].filter(Boolean).join(' · ')
})
</script>

<template>
  <p v-if="words" class="quiet -mt-1.5">When ready: {{ words }}. <NuxtLink :to="`/sections/${sectionId}`">Section defaults</NuxtLink></p>
</template>
