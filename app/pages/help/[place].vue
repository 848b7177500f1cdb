<script setup lang="ts">
/** Short steps for a place, to read or print, and a message to the team that carries where one was. */
import type { MessageView } from '~~/shared/help/messages'
import { WriteToTeam } from '~~/shared/help/messages'
import { check } from '~~/shared/validate'
import { help } from '~/help/steps'

const route = useRoute()
const me = useMe()
const toasts = useToasts()
const place = computed(() => String(route.params.place))
const shown = computed(() => help[place.value] ?? help.start!)
const others = computed(() => Object.entries(help).filter(([key, h]) => key !== place.value && h.for.includes(me.role ?? 'student')))
const from = computed(() => (typeof route.query.from === 'string' && /^\/(?!\/)/.test(route.query.from) ? route.query.from : `/${place.value}`))
const text = ref('')
const wrong = ref('')
const { data: mine, refresh } = useLiveData(async () => (await api<MessageView[]>('/api/messages')).filter((m) => m.mine), (e) => e.topic === 'notice')
async function write() {
  const found = await check(WriteToTeam, { body: text.value, path: from.value })
  wrong.value = 'errors' in found ? Object.values(found.errors)[0]! : ''
  if (wrong.value) return
  try {
    toasts.show((await api<{ sentence: string }>('/api/messages', { method: 'POST', body: { body: text.value, path: from.value } })).sentence)
    text.value = ''
    await refresh()
  } catch (error) {
    wrong.value = sentenceOf(error)
  }
}
const print = () => window.print()
useHead({ title: () => `Help: ${shown.value.title} · Karstland` })
</script>

<template>
  <div class="flex h-full gap-10 overflow-auto px-4 py-3 max-md:flex-col print:block">
    <article class="max-w-[640px] min-w-0 flex-1">
      <p class="quiet print:hidden"><NuxtLink :to="from">Back to where I was</NuxtLink></p>
      <div class="flex items-center gap-3"><h1>Help: {{ shown.title }}</h1><button type="button" class="btn btn-small print:hidden" @click="print">Print</button></div>
      <ol class="mt-3 list-decimal space-y-2.5 pl-6 text-[15px]"><li v-for="step in shown.steps" :key="step">{{ step }}</li></ol>
      <h2 class="mt-6 print:hidden">Other places</h2>
      <ul class="mt-1 flex flex-wrap gap-x-4 print:hidden"><li v-for="[key, h] in others" :key="key"><NuxtLink :to="`/help/${key}`">{{ h.title }}</NuxtLink></li></ul>
    </article>
    <section class="w-[380px] shrink-0 max-md:w-full print:hidden">
      <h2>Write to the team</h2>
      <form class="mt-2" novalidate @submit.prevent="write">
        <label class="label" for="team-message">What happened, or what you want to do</label>
        <textarea id="team-message" v-model="text" rows="5" maxlength="4000" class="field" :aria-invalid="wrong ? 'true' : undefined" />
        <p class="quiet">The team sees that you were looking at <span class="num">{{ from }}</span></p>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <button class="btn btn-main mt-2">Send</button>
      </form>
      <template v-if="mine?.length">
        <h2 class="mt-6">What I wrote</h2>
        <ul class="mt-1"><li v-for="m in mine" :key="m.id" class="border-t border-silt py-2"><p>{{ m.body }}</p><p v-if="m.answer" class="mt-1 rounded bg-pool-wash px-2 py-1">{{ m.answeredBy }}: {{ m.answer }}</p><p v-else class="quiet">no answer yet, {{ momentWords(me.zone, m.at) }}</p></li></ul>
      </template>
    </section>
  </div>
</template>
