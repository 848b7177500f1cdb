<script setup lang="ts">
/** Where recordings are placed, and which codes were copied and never met on a page. */
import { wallOf } from '~~/core/term/calendar'

interface Line { id: string, kind: string, recordingId: string, name: string, section: string, pageUrl: string | null, copiedAt: number, metAt: number | null, placedBy: string, released: boolean, start: number | null }
const me = useMe()
const address = useAddress()
const only = address.text('only')
const { data: lines, error, refresh } = useLiveData(() => api<Line[]>('/api/placements'), (e) => e.topic === 'recording')
const find = address.text('find')
const term = useTerm()
const weeks = address.text('weeks')
const troubled = (l: Line) => !l.metAt || !l.released
const span = computed(() => term.spanOf(weeks.value))
const inWeeks = (l: Line) => !span.value || (l.start !== null && l.start >= span.value.from && l.start < span.value.to)
const shown = computed(() => (lines.value ?? []).filter((l) => inWeeks(l) && (only.value !== 'trouble' || troubled(l)) && `${l.name} ${l.pageUrl ?? ''}`.toLowerCase().includes((find.value ?? '').toLowerCase())))
const day = (instant: number) => dateWords(wallOf(me.zone, instant).date)
useHead({ title: 'Course pages · Karstland' })
</script>

<template>
  <div class="flex h-full flex-col">
    <div class="flex flex-wrap items-center gap-3 px-4 pt-3 pb-2">
      <h1>Course pages</h1>
      <p v-if="lines" class="text-slate">{{ plural(lines.length, 'placement') }} · <span class="text-ochre-ink">{{ lines.filter(troubled).length }} to look at</span><template v-if="weeks"> · of the chosen weeks <button type="button" class="underline" @click="address.set({ weeks: undefined })">show all weeks</button></template></p>
      <div class="ml-auto flex gap-2">
        <input type="search" class="field w-[220px]!" placeholder="Find a recording or page" aria-label="Find a recording or page" :value="find" @input="address.set({ find: ($event.target as HTMLInputElement).value || undefined }, 'replace')">
        <button type="button" class="btn" :aria-pressed="only === 'trouble'" :class="{ 'border-pool! bg-pool-wash!': only === 'trouble' }" @click="address.set({ only: only === 'trouble' ? undefined : 'trouble' })">To look at</button>
      </div>
    </div>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <div v-else-if="!lines" class="space-y-2 p-4" role="status" aria-label="Placements are opening"><div v-for="i in 10" :key="i" class="waiting h-8" /></div>
    <EmptyPlace v-else-if="!shown.length" :title="lines.length ? 'No placement matches' : 'Nothing is placed yet'">Open a recording in the <NuxtLink to="/library">library</NuxtLink> and copy its player code or link into a course page. It appears here, and says which page it was met on.</EmptyPlace>
    <div v-else class="min-h-0 flex-1 overflow-auto">
      <table class="w-full border-collapse">
        <thead class="sticky top-0 bg-mist"><tr class="quiet text-left"><th scope="col" class="py-1.5 pl-4 font-normal">Recording</th><th scope="col" class="px-3 font-normal">As</th><th scope="col" class="px-3 font-normal">Page</th><th scope="col" class="px-3 font-normal">Reaches</th><th scope="col" class="px-3 font-normal max-md:hidden">Placed by</th></tr></thead>
        <tbody>
          <tr v-for="l in shown" :key="l.id" class="h-9 border-t border-silt hover:bg-chalk">
            <td class="max-w-0 truncate pl-4" style="width: 42%"><NuxtLink :to="`/recordings/${l.recordingId}`">{{ l.name }}</NuxtLink></td>
            <td class="px-3">{{ l.kind }}</td>
            <td class="max-w-0 truncate px-3" style="width: 24%"><a v-if="l.pageUrl" :href="l.pageUrl" target="_blank" rel="noopener">{{ pageWords(l.pageUrl) }}</a><span v-else class="text-ochre-ink">copied {{ day(l.copiedAt) }}, not met yet</span></td>
            <td class="px-3 whitespace-nowrap"><span v-if="!l.released" class="tag bg-ochre-wash! text-ochre-ink!">held: nobody</span><span v-else class="tag bg-moss-wash! text-moss-ink!">class list</span></td>
            <td class="truncate px-3 whitespace-nowrap text-slate max-md:hidden">{{ l.placedBy }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
