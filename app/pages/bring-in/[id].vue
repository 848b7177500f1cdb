<script setup lang="ts">
/** One import: read, looked over, settled, and taken in as a whole or not at all. */
import type { ImportView } from '~~/shared/imports/views'

const route = useRoute()
const id = route.params.id as string
const me = useMe()
const edits = useEdits()
const toasts = useToasts()
const { data: item, error, refresh } = useLiveData(() => api<ImportView>(`/api/imports/${id}`), (e) => (e.topic === 'work' && e.work.id === id) || e.topic === 'timetable')
const busy = ref(false)
const titles = { 'class data': 'Class data', 'timetable': 'Timetable', 'roll-over': 'Roll-over' }
const open = computed(() => item.value && ['looked over', 'waiting', 'reading'].includes(item.value.state))
const reading = computed(() => item.value && ['waiting', 'reading', 'taking in'].includes(item.value.state))
const clashes = computed(() => item.value?.timetable?.counts.clash ?? 0)
const errors = computed(() => item.value?.classData?.errors.length ?? 0)

async function tell(path: string, body?: object) {
  busy.value = true
  try {
    await api(`/api/imports/${id}/${path}`, { method: 'POST', body })
  } catch (problem) {
    toasts.show(sentenceOf(problem))
  } finally {
    busy.value = false
  }
  await refresh()
}
async function drop() {
  await tell('drop')
  await navigateTo({ path: '/bring-in', query: { kind: item.value?.kind } })
}
async function undo() {
  await edits.undo(item.value!.editId!)
  await refresh()
}
useHead({ title: () => `${item.value?.name ?? 'Bring in'} · Karstland` })
</script>

<template>
  <div class="flex h-full min-h-0 flex-col">
    <div class="px-4 pt-3">
      <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink> · <NuxtLink v-if="item" :to="{ path: '/bring-in', query: { kind: item.kind } }">{{ titles[item.kind] }}</NuxtLink></p>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!item" class="waiting mt-2 h-8 w-80" role="status" aria-label="The import is opening" />
      <template v-else>
        <div class="flex flex-wrap items-center gap-3">
          <h1 class="min-w-0 truncate">{{ item.name }}</h1>
          <span class="tag">{{ item.undone ? 'taken in, then undone' : item.state }}</span>
          <span v-if="reading" class="flex items-center gap-2"><ProgressBar :percent="item.percent" :label="item.name" /><span class="num">{{ Math.round(item.percent) }}%</span> <span class="quiet">{{ item.step }}</span></span>
          <span class="quiet">{{ item.who }}, {{ momentWords(me.zone, item.askedAt) }}</span>
          <div class="ml-auto flex gap-2">
            <button v-if="open" type="button" class="btn" :disabled="busy" @click="drop">Drop it</button>
            <button v-if="item.state === 'looked over'" type="button" class="btn btn-main" :disabled="busy || clashes > 0 || errors > 0 || !!item.timetable?.lack" @click="tell('take')">Take it in</button>
            <button v-if="item.state === 'taken in' && item.editId && !item.undone" type="button" class="btn" @click="undo">Undo</button>
          </div>
        </div>
        <p v-if="item.sentence" class="mt-1" :class="item.state === 'taken in' ? 'text-moss-ink' : 'text-ember-ink'" role="status"><span v-if="item.state !== 'taken in'" aria-hidden="true">▲ </span>{{ item.sentence }}</p>
        <p v-if="item.state === 'looked over' && (clashes || errors)" class="quiet mt-1">{{ clashes ? `${plural(clashes, 'plan clashes', 'plans clash')}: settle or leave out each, then take the rest in.` : `${plural(errors, 'row is', 'rows are')} wrong: correct them in the registry and bring the file again.` }}</p>
      </template>
    </div>
    <ClassDataLook v-if="item?.classData" class="min-h-0 flex-1" :result="item.classData" />
    <TimetableLook v-else-if="item?.timetable" class="min-h-0 flex-1" :result="item.timetable" :options="item.options" :open="!!open" :roll-over="item.kind === 'roll-over'" :busy="busy || !!reading" @tell="tell" />
    <div v-else-if="reading" class="space-y-2 p-4" role="status" aria-label="The file is being read"><div v-for="i in 8" :key="i" class="waiting h-8" /></div>
  </div>
</template>
