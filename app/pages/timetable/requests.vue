<script setup lang="ts">
/** What instructors ask for beyond the rules; the team accepts or turns down with a word. */
import type { RequestView } from '~~/shared/timetable/requests'
import type { Edited } from '~~/shared/timetable/views'

const me = useMe()
const edits = useEdits()
const toasts = useToasts()
const { data: list, error, refresh } = useLiveData(() => api<RequestView[]>('/api/requests'), (e) => e.topic === 'timetable' || e.topic === 'notice')
const words = reactive<Record<string, string>>({})
const busy = ref('')
const trouble = reactive<Record<string, string>>({})

async function answer(r: RequestView, what: 'accepted' | 'turned down') {
  busy.value = r.id
  trouble[r.id] = ''
  try {
    const { sentence, edited } = await api<{ sentence: string, edited: Edited | null }>(`/api/requests/${r.id}/answer`, { method: 'POST', body: { answer: what, word: words[r.id] ?? '' } })
    if (edited) edits.done(edited)
    else toasts.show(sentence)
  } catch (problem) {
    trouble[r.id] = sentenceOf(problem)
  }
  busy.value = ''
  await refresh()
}
async function takeBack(r: RequestView) {
  await api(`/api/requests/${r.id}/take-back`, { method: 'POST' }).catch((problem: unknown) => toasts.show(sentenceOf(problem)))
  await refresh()
}
useHead({ title: 'Requests · Karstland' })
</script>

<template>
  <div class="h-full overflow-auto px-4 py-3">
    <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink></p>
    <h1>Requests</h1>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <div v-else-if="!list" class="mt-4 space-y-2" role="status" aria-label="Requests are opening"><div v-for="i in 4" :key="i" class="waiting h-16" /></div>
    <EmptyPlace v-else-if="!list.length" title="No requests">What goes beyond the rules for instructors waits here until the team accepts it or turns it down.</EmptyPlace>
    <ul v-else class="mt-3 max-w-[920px]">
      <li v-for="r in list" :key="r.id" class="border-t border-silt py-3">
        <div class="flex items-baseline gap-3"><strong>{{ r.section }}</strong><span class="tag" :class="{ 'bg-pool-wash!': r.state === 'waiting', 'bg-moss-wash!': r.state === 'accepted' }">{{ r.state }}</span><span class="quiet">{{ r.who }}, {{ momentWords(me.zone, r.askedAt) }}</span></div>
        <p class="mt-1">{{ r.words }}</p>
        <p class="text-ochre-ink">{{ r.reasons.join(' ') }}</p>
        <p v-if="r.note" class="mt-1 border-l-2 border-silt pl-2 text-slate">{{ r.note }}</p>
        <p v-if="r.answer" class="mt-1">{{ r.answeredBy }}: {{ r.answer }}</p>
        <div v-if="r.state === 'waiting' && me.role === 'staff'" class="mt-2 flex flex-wrap items-center gap-2">
          <input v-model="words[r.id]" class="field max-w-[380px]" maxlength="400" :aria-label="`A word to ${r.who}`" placeholder="A word with it; needed to turn it down">
          <button type="button" class="btn btn-main" :disabled="busy === r.id" @click="answer(r, 'accepted')">Accept</button>
          <button type="button" class="btn" :disabled="busy === r.id" @click="answer(r, 'turned down')">Turn down</button>
        </div>
        <button v-else-if="r.state === 'waiting' && r.mine" type="button" class="btn btn-small mt-2" @click="takeBack(r)">Take it back</button>
        <p v-if="trouble[r.id]" class="wrong" role="alert">{{ trouble[r.id] }}</p>
      </li>
    </ul>
  </div>
</template>
