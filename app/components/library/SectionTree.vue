<script setup lang="ts">
/** Courses and their sections; each section is its own folder. */
import type { SectionView } from '~~/shared/library/views'

const props = defineProps<{ sections: SectionView[], chosen?: string }>()
const emit = defineEmits<{ choose: [id: string | undefined] }>()
const find = ref('')
const courses = computed(() => {
  const wanted = find.value.toLowerCase()
  const found = props.sections.filter((s) => `${s.code} ${s.title}`.toLowerCase().includes(wanted))
  return [...Map.groupBy(found, (s) => s.course)].map(([code, sections]) => ({ code, title: sections[0]!.title, sections }))
})
</script>

<template>
  <nav aria-label="Sections" class="flex h-full min-h-0 flex-col">
    <div v-if="sections.length > 12" class="p-2 pb-0"><input v-model="find" type="search" class="field" placeholder="Find a section" aria-label="Find a section"></div>
    <ul class="min-h-0 flex-1 overflow-y-auto p-2">
      <li><button type="button" class="flex h-[29px] w-full items-center justify-between rounded-[5px] border-2 px-2 text-left font-bold" :class="!chosen ? 'border-[#14222a] bg-lichen text-[#14222a]' : 'border-transparent hover:bg-marl'" :aria-current="!chosen || undefined" @click="emit('choose', undefined)">Newest of all</button></li>
      <li v-for="course in courses" :key="course.code" class="mt-1.5">
        <p class="truncate px-2 leading-[26px] text-slate"><span class="font-semibold text-ink">{{ course.code }}</span> {{ course.title }}</p>
        <ul>
          <li v-for="s in course.sections" :key="s.id">
            <button type="button" class="flex h-[29px] w-full items-center justify-between rounded-[5px] border-2 pr-2 pl-5 text-left" :class="s.id === chosen ? 'border-[#14222a] bg-lichen font-bold text-[#14222a]' : 'border-transparent hover:bg-marl'"
              :aria-current="s.id === chosen || undefined" @click="emit('choose', s.id)">
              <span>section {{ s.number }}</span><span class="num text-[12.5px]">{{ s.recordings }}</span>
            </button>
          </li>
        </ul>
      </li>
      <li v-if="!courses.length" class="quiet p-2">{{ find ? 'No section with these words.' : 'No sections this term.' }}</li>
    </ul>
  </nav>
</template>
