<script setup lang="ts">
/** The library: sections with their folders, the recordings of one, and a bench for details. */
import type { FilingView, RecordingView, SectionView } from '~~/shared/library/views'

const me = useMe()
const term = useTerm()
const address = useAddress()
const section = address.text('section')
const open = address.text('recording')
const weeks = address.text('weeks')

const { data: sections, error: sectionsError, refresh: refreshSections } = useLiveData(() => api<SectionView[]>('/api/sections'), (e) => e.topic === 'recording')
const { data: filings, error, refresh, pending } = useLiveData(
  () => api<FilingView[]>(`/api/filings${section.value ? `?section=${section.value}` : ''}`),
  (e) => e.topic === 'recording' || (e.topic === 'work' && e.work.state !== 'running'),
)
const { data: recording, refresh: refreshRecording } = useLiveData(
  async () => (open.value ? api<RecordingView>(`/api/recordings/${open.value}`) : null),
  (e) => e.topic === 'recording' && e.id === open.value,
)
const chosen = computed(() => sections.value?.find((s) => s.id === section.value))
const shown = computed(() => {
  const span = term.spanOf(weeks.value)
  return (filings.value ?? []).filter((f) => !span || (f.start !== null && f.start >= span.from && f.start < span.to))
})
const held = computed(() => shown.value.filter((f) => !f.released).length)

function changed(next?: RecordingView) {
  if (next) recording.value = next
  else void refreshRecording()
  void refresh()
}
function choose(id: string | undefined) {
  filings.value = null
  address.set({ section: id, recording: undefined })
}
useHead({ title: () => `${chosen.value ? `${chosen.value.code} ${chosen.value.title}` : me.role === 'staff' ? 'Library' : 'My sections'} · Karstland` })
</script>

<template>
  <div class="flex h-full min-h-0 max-md:flex-col">
    <div class="w-[232px] shrink-0 border-r border-silt max-md:max-h-[220px] max-md:w-full max-md:border-r-0 max-md:border-b">
      <TroubleNote v-if="sectionsError" :sentence="sectionsError" @again="refreshSections" />
      <div v-else-if="!sections" class="space-y-2 p-3" role="status" aria-label="Sections are opening"><div v-for="i in 10" :key="i" class="waiting h-6" /></div>
      <SectionTree v-else :sections="sections" :chosen="section" @choose="choose" />
    </div>
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="px-4 pt-3 pb-2">
        <p class="quiet">{{ chosen ? `${chosen.course} ${chosen.title}` : term.view?.term.name }}</p>
        <h1>{{ chosen ? `${chosen.code}` : me.role === 'staff' ? 'Newest of all sections' : 'Newest of my sections' }}</h1>
        <p v-if="filings" class="quiet mt-0.5">{{ plural(shown.length, 'recording') }}<template v-if="weeks"> in the chosen weeks · <button type="button" class="underline" @click="address.set({ weeks: undefined })">show all weeks</button></template><template v-if="held"> · {{ held }} held</template><template v-if="chosen"> · {{ plural(chosen.people, 'person', 'people') }} on the class list</template></p>
      </div>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!filings" class="space-y-2 px-4" role="status" aria-label="The folder is opening"><div v-for="i in 8" :key="i" class="waiting h-[54px]" /></div>
      <div v-else class="min-h-0 flex-1 overflow-auto" :aria-busy="pending">
        <EmptyPlace v-if="!shown.length" :title="weeks ? 'Nothing was recorded in these weeks' : 'This folder is still empty'">
          Recordings of this section lie here from the moment their capture starts.
          <NuxtLink v-if="me.role === 'staff'" to="/timetable?plan=1">Plan a capture</NuxtLink>
        </EmptyPlace>
        <table v-else class="w-full border-collapse">
          <thead class="sticky top-0 z-[1] bg-mist">
            <tr class="quiet text-left whitespace-nowrap"><th scope="col" class="py-1.5 pl-4 font-normal">Recording</th><th scope="col" class="px-2 text-right font-normal">Length</th><th scope="col" class="px-3 font-normal max-lg:hidden">Who can watch</th><th scope="col" class="px-2 font-normal">Road to students</th></tr>
          </thead>
          <tbody>
            <tr v-for="f in shown" :key="f.filingId" class="h-[62px] border-t border-silt" :class="f.recordingId === open ? 'bg-pool-wash shadow-[inset_3px_0_0_var(--pool)]' : 'hover:bg-chalk'">
              <td class="max-w-0 pl-4" style="width: 60%">
                <div class="flex items-center gap-3">
                  <img v-if="f.poster" :src="f.poster" alt="" loading="lazy" width="88" height="50" class="h-[50px] w-[88px] shrink-0 rounded object-cover max-sm:hidden">
                  <span v-else class="grid h-[50px] w-[88px] shrink-0 place-items-center rounded border border-silt text-[12px] text-slate max-sm:hidden" :class="{ hatched: f.state === 'being_made' }"><span class="rounded bg-mist px-1">{{ { recording: '● recording', coming_in: 'coming in', being_made: 'being made', failed: '▲ failed', ready: 'sound' }[f.state] }}</span></span>
                  <div class="min-w-0">
                    <button type="button" class="block max-w-full truncate text-left font-bold hover:underline" :aria-expanded="f.recordingId === open" @click="address.set({ recording: f.recordingId === open ? undefined : f.recordingId })">{{ f.topic }}</button>
                    <p class="quiet truncate"><template v-if="!section">{{ f.section }} · </template>{{ f.week }}<template v-if="f.start"> · {{ momentWords(me.zone, f.start) }}</template></p>
                  </div>
                </div>
              </td>
              <td class="num px-2 text-right">{{ clockLength(f.seconds) }}</td>
              <td class="px-3 max-lg:hidden">{{ f.released ? (f.opensAt && f.road.word === 'opens later' ? `Class list, opens ${momentWords(me.zone, f.opensAt)}` : 'Class list') : 'Owners only' }}</td>
              <td class="px-2"><RoadLine :road="f.road" /></td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <BenchPanel v-if="open && recording && recording.recordingId === open" :key="open" :title="recording.topic" :full="`/recordings/${open}`" @close="address.set({ recording: undefined })">
      <NuxtLink :to="`/recordings/${open}`" class="relative mb-3 block overflow-hidden rounded-md border border-silt" :aria-label="`Watch ${recording.name}`">
        <img v-if="recording.poster" :src="recording.poster" alt="" class="aspect-video w-full object-cover">
        <span v-else class="grid aspect-video place-items-center text-slate" :class="{ hatched: recording.state === 'being_made' }"><span class="rounded bg-chalk px-2">{{ recording.road.word }}</span></span>
        <span v-if="recording.poster" class="absolute inset-0 m-auto grid size-12 place-items-center rounded-full bg-[#14222a] pl-1 text-[20px] text-lichen" aria-hidden="true">▶</span>
      </NuxtLink>
      <RecordingDetails :recording="recording" @changed="changed" />
    </BenchPanel>
  </div>
</template>
