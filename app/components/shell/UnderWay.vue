<script setup lang="ts">
/** The strip at the bottom: what is being made, with percent and time left; opens upwards into the full list. */
import { leftWords } from '~~/core/media/forecast'
import { wallOf } from '~~/core/term/calendar'
import type { UndertakingView } from '~~/shared/library/views'

const work = useWork()
const me = useMe()
const live = useLive()
const now = useCampusNow()
const open = ref(false)
const clock = computed(() => {
  const { date, time } = wallOf(me.zone, now.value)
  return `${dateWords(date)} ${time}`
})

onMounted(work.load)
onScopeDispose(live.listen((event) => {
  if (event.topic === 'work') work.take(event.work)
  if (event.topic === 'again' || event.topic === 'recording') void work.load()
}))

/** An import that waits for a person is done as far as the machine goes. */
const wordOf = (item: UndertakingView) => (item.kind === 'import' && item.state === 'done' ? item.step : words[item.state])
const words: Record<UndertakingView['state'], string> = { waiting: 'waiting', running: 'being made', done: 'made', failed: 'failed', cancelled: 'cancelled' }

async function tell(item: UndertakingView, verb: 'cancel' | 'again') {
  try {
    await api(item.kind === 'import' ? `/api/imports/${item.id}/drop` : `/api/under-way/${item.id}/${verb}`, { method: 'POST' })
    if (verb === 'cancel' && item.kind === 'making') useToasts().show(`Cancelled: ${item.title}`, { label: 'Make again', run: () => tell(item, 'again') })
  } catch (error) {
    useToasts().show(sentenceOf(error))
  }
  await work.load()
}
</script>

<template>
  <section aria-label="Under way" class="sticky bottom-0 z-30 border-t border-silt bg-chalk">
    <div v-if="open" id="under-way-list" class="max-h-[45vh] overflow-y-auto border-b border-silt px-4 py-3" @keydown.esc="open = false">
      <p v-if="work.error" class="text-ember-ink">{{ work.error }}</p>
      <p v-else-if="!work.all.length" class="quiet">Nothing is being made and nothing waits. What recorders send in appears here while its streams are made.</p>
      <table v-else class="w-full">
        <caption class="sr-only">What is being made, waits, or ended in the last half hour</caption>
        <tbody>
          <tr v-for="item in work.all" :key="item.id" class="h-9 border-b border-marl last:border-0">
            <td class="max-w-0 truncate pr-3 max-md:whitespace-normal" style="width: 45%"><NuxtLink :to="item.link">{{ item.title }}</NuxtLink></td>
            <td class="pr-3">
              <span v-if="item.state === 'running'" class="flex items-center gap-2"><ProgressBar :percent="item.percent" :label="item.title" /> <span class="num">{{ Math.round(item.percent) }}%</span> <span class="quiet">{{ item.step }}<template v-if="item.leftS !== null">, {{ leftWords(item.leftS) }}</template></span></span>
              <span v-else :class="{ 'text-ember-ink': item.state === 'failed' }">{{ wordOf(item) }}<template v-if="item.sentence">: {{ item.sentence }}</template></span>
            </td>
            <td class="text-right whitespace-nowrap">
              <button v-if="item.state === 'running' || item.state === 'waiting'" type="button" class="btn btn-small" @click="tell(item, 'cancel')">Cancel</button>
              <button v-if="item.kind === 'making' && (item.state === 'failed' || item.state === 'cancelled')" type="button" class="btn btn-small" @click="tell(item, 'again')">Make again</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="flex h-[38px] items-center gap-6 overflow-hidden px-4 whitespace-nowrap">
      <button type="button" class="font-bold" :aria-expanded="open" aria-controls="under-way-list" @click="open = !open">Under way {{ open ? '▾' : '▴' }}</button>
      <span v-for="item in work.running.slice(0, 2)" :key="item.id" class="flex min-w-0 items-center gap-2.5 max-md:hidden">
        <span class="max-w-[280px] truncate text-slate">{{ item.title }}</span>
        <ProgressBar :percent="item.percent" :label="item.title" />
        <span><span class="num">{{ Math.round(item.percent) }}%</span> <span class="text-slate">{{ leftWords(item.leftS) }}</span></span>
      </span>
      <span v-if="work.running.length > 2" class="text-slate">and {{ work.running.length - 2 }} more</span>
      <span v-if="work.waiting.length" class="text-slate"><span class="num">{{ work.waiting.length }}</span> waiting</span>
      <span v-if="work.failed.length" class="text-ember-ink">▲ {{ work.failed.length }} failed</span>
      <span v-if="!work.running.length && !work.waiting.length" class="text-slate max-sm:hidden">nothing just now</span>
      <span class="ml-auto text-slate max-sm:text-[12px]"><span v-if="!live.connected" class="mr-3 text-ochre-ink">? line is down, trying again</span><span class="max-sm:sr-only">Campus clock </span><span class="num">{{ clock }}</span></span>
    </div>
  </section>
</template>
