<script setup lang="ts">
/** Everything that was done to the timetable, by whom, with the way back. */
import type { EditView } from '~~/shared/timetable/views'

const me = useMe()
const edits = useEdits()
const { data: list, error, refresh } = useLiveData(() => api<EditView[]>('/api/edits'), (e) => e.topic === 'timetable')
async function undo(id: string) {
  await edits.undo(id)
  await refresh()
}
useHead({ title: 'What was changed · Karstland' })
</script>

<template>
  <div class="h-full overflow-auto px-4 py-3">
    <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink></p>
    <h1>What was changed</h1>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <div v-else-if="!list" class="mt-4 space-y-2" role="status" aria-label="The history is opening"><div v-for="i in 6" :key="i" class="waiting h-8" /></div>
    <EmptyPlace v-else-if="!list.length" title="Nothing was changed yet">Plans, changes and imports of the timetable are listed here, each with the way back.</EmptyPlace>
    <table v-else class="mt-3 w-full max-w-[1100px]">
      <thead><tr class="text-left text-slate"><th class="py-1 pr-3 font-normal">When</th><th class="pr-3 font-normal">Who</th><th class="pr-3 font-normal">What</th><th class="pr-3 text-right font-normal">Captures</th><th><span class="sr-only">Undo</span></th></tr></thead>
      <tbody>
        <tr v-for="e in list" :key="e.id" class="h-10 border-t border-silt">
          <td class="num pr-3 whitespace-nowrap">{{ momentWords(me.zone, e.at) }}</td>
          <td class="pr-3 whitespace-nowrap">{{ e.who }}</td>
          <td class="pr-3"><span :class="{ 'text-slate line-through': e.undoneAt }">{{ e.sentence }}</span><span v-if="e.undoneAt" class="quiet"> undone by {{ e.undoneBy }}, {{ momentWords(me.zone, e.undoneAt) }}</span></td>
          <td class="num pr-3 text-right">{{ e.captures }}</td>
          <td class="text-right"><button v-if="e.mayUndo" type="button" class="btn btn-small" :aria-label="`Undo: ${e.sentence}`" @click="undo(e.id)">Undo</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
