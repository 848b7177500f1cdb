<script setup lang="ts">
/** Messages to the team: those without an answer first, each with what its writer was looking at. */
import type { MessageView } from '~~/shared/help/messages'

const me = useMe()
const toasts = useToasts()
const { data: list, error, refresh } = useLiveData(() => api<MessageView[]>('/api/messages'), (e) => e.topic === 'notice')
const answers = reactive<Record<string, string>>({})
async function answer(m: MessageView) {
  try {
    toasts.show((await api<{ sentence: string }>(`/api/messages/${m.id}/answer`, { method: 'POST', body: { answer: answers[m.id] ?? '' } })).sentence)
  } catch (problem) {
    toasts.show(sentenceOf(problem))
  }
  await refresh()
}
useHead({ title: 'Messages · Karstland' })
</script>

<template>
  <div class="h-full overflow-auto px-4 py-3">
    <h1>Messages to the team</h1>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <div v-else-if="!list" class="mt-4 space-y-2" role="status" aria-label="Messages are opening"><div v-for="i in 4" :key="i" class="waiting h-16" /></div>
    <EmptyPlace v-else-if="!list.length" title="No messages">Every place has a Help page from which people write to the team. What they write comes here.</EmptyPlace>
    <ul v-else class="mt-3 max-w-[860px]">
      <li v-for="m in list" :key="m.id" class="border-t border-silt py-3">
        <p class="flex items-baseline gap-3"><strong>{{ m.who }}</strong><span class="quiet">{{ m.email }}, {{ momentWords(me.zone, m.at) }}, looking at <NuxtLink :to="m.path">{{ m.path }}</NuxtLink></span></p>
        <p class="mt-1 whitespace-pre-wrap">{{ m.body }}</p>
        <p v-if="m.answer" class="mt-1.5 rounded bg-pool-wash px-2 py-1">{{ m.answeredBy }}: {{ m.answer }}</p>
        <form v-else class="mt-2 flex gap-2" @submit.prevent="answer(m)"><input v-model="answers[m.id]" class="field max-w-[560px]" maxlength="4000" :aria-label="`Answer ${m.who}`" placeholder="Answer"><button class="btn btn-main">Answer</button></form>
      </li>
    </ul>
  </div>
</template>
