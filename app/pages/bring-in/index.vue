<script setup lang="ts">
/** Bringing something in: class data, a timetable, or the plans of another term. Nothing is written before it was looked over. */
import type { ImportKind, ImportSummary } from '~~/shared/imports/views'
import type { TermChoice } from '~~/shared/term/views'

const address = useAddress()
const me = useMe()
const kindAsked = address.text('kind')
const kind = computed<ImportKind>(() => (['class data', 'timetable', 'roll-over'] as const).find((k) => k === kindAsked.value) ?? 'timetable')
const words = {
  'timetable': { title: 'Bring in a timetable', what: 'A CSV file or an iCalendar file (.ics): a row for each weekly session, or for each date. Columns may be called anything; you say what they hold on the next page, and it is remembered.' },
  'class data': { title: 'Bring in class data', what: 'A OneRoster export: one zip, or its files academicSessions, courses, classes, users and enrollments. People, sections and class lists follow the registry.' },
  'roll-over': { title: 'Roll a term over', what: 'The capture plans of one term are laid onto another by week and weekday. Sections are found again by course and number.' },
} as const
const { data: terms } = useLiveData(() => api<TermChoice[]>('/api/terms'), () => false)
const { data: lately, error, refresh } = useLiveData(() => api<ImportSummary[]>(`/api/imports?kinds=${encodeURIComponent(kind.value)}`), (e) => e.topic === 'work' && e.work.kind === 'import')
const form = reactive({ termId: '', fromTermId: '', source: 'Registry' })
watch(terms, (list) => {
  if (!list?.length) return
  const now = list.find((t) => t.current) ?? list[0]!
  form.termId ||= kind.value === 'roll-over' ? (list.find((t) => t.from > now.to) ?? now).id : now.id
  form.fromTermId ||= now.id
}, { immediate: true })
const files = shallowRef<File[]>([])
const over = ref(false)
const busy = ref(false)
const trouble = ref('')

function choose(list: FileList | null | undefined) {
  files.value = [...(list ?? [])]
  trouble.value = ''
}

async function begin() {
  busy.value = true
  trouble.value = ''
  try {
    const { id } = kind.value === 'roll-over'
      ? await api<{ id: string }>('/api/imports/roll-over', { method: 'POST', body: { fromTermId: form.fromTermId, toTermId: form.termId } })
      : await send()
    await navigateTo(`/bring-in/${id}`)
  } catch (problem) {
    trouble.value = sentenceOf(problem)
  } finally {
    busy.value = false
  }
}
function send() {
  const data = new FormData()
  for (const file of files.value) data.append('file', file, file.name)
  const query = new URLSearchParams({ kind: kind.value, source: form.source, ...(kind.value === 'timetable' ? { termId: form.termId } : {}) })
  return api<{ id: string }>(`/api/imports?${query}`, { method: 'POST', form: data })
}
useHead({ title: () => `${words[kind.value].title} · Karstland` })
</script>

<template>
  <div class="h-full overflow-auto px-4 py-3">
    <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink></p>
    <h1>{{ words[kind].title }}</h1>
    <p class="mt-1 max-w-[640px] text-slate">{{ words[kind].what }}</p>
    <form class="mt-4 flex max-w-[640px] flex-col gap-3" @submit.prevent="begin">
      <div v-if="kind !== 'class data'" class="grid grid-cols-2 gap-3">
        <FormField v-if="kind === 'roll-over'" v-slot="f" label="Plans of"><select v-bind="f" v-model="form.fromTermId" class="field"><option v-for="t in terms" :key="t.id" :value="t.id">{{ t.name }}</option></select></FormField>
        <FormField v-slot="f" :label="kind === 'roll-over' ? 'onto' : 'Term'"><select v-bind="f" v-model="form.termId" class="field"><option v-for="t in terms" :key="t.id" :value="t.id">{{ t.name }}</option></select></FormField>
        <FormField v-if="kind === 'timetable'" v-slot="f" label="Where it comes from" note="Taken in again under this name, only what changed is changed."><input v-bind="f" v-model="form.source" class="field" maxlength="80"></FormField>
      </div>
      <label v-if="kind !== 'roll-over'" class="flex min-h-[110px] cursor-pointer flex-col items-center justify-center rounded-md border-2 border-dashed border-edge bg-chalk p-4 text-center focus-within:outline-3 focus-within:outline-lichen" :class="{ 'bg-lichen-wash!': over }"
        @dragover.prevent="over = true" @dragleave="over = false" @drop.prevent="over = false; choose($event.dataTransfer?.files)">
        <span class="font-semibold">{{ files.length ? files.map((f) => f.name).join(', ') : 'Drop the file here, or choose it' }}</span>
        <span class="quiet">{{ kind === 'timetable' ? '.csv or .ics' : '.zip, or several .csv' }}, up to 64 MB and 100 000 rows</span>
        <input type="file" class="sr-only" :accept="kind === 'timetable' ? '.csv,.ics,.txt,text/csv,text/calendar' : '.zip,.csv'" :multiple="kind === 'class data'" @change="choose(($event.target as HTMLInputElement).files)">
      </label>
      <p v-if="trouble" role="alert" class="wrong">{{ trouble }}</p>
      <div><button class="btn btn-main" :disabled="busy || (kind !== 'roll-over' && !files.length)">{{ busy ? 'Sending…' : 'Look it over' }}</button> <span class="quiet ml-2">Nothing is written yet.</span></div>
    </form>
    <h2 class="mt-8">Lately</h2>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <p v-else-if="!lately?.length" class="quiet mt-1">Nothing was brought in here yet.</p>
    <table v-else class="mt-2 w-full max-w-[900px]">
      <tbody>
        <tr v-for="i in lately" :key="i.id" class="h-9 border-t border-silt">
          <td class="max-w-0 truncate pr-3" style="width: 40%"><NuxtLink :to="`/bring-in/${i.id}`">{{ i.name }}</NuxtLink></td>
          <td class="num pr-3 whitespace-nowrap">{{ momentWords(me.zone, i.askedAt) }}</td><td class="pr-3">{{ i.who }}</td>
          <td>{{ i.state }}<span v-if="i.state === 'failed'" class="text-ember-ink">: {{ i.sentence }}</span></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
