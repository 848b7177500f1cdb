<script setup lang="ts">
/** What one was told, and how one wants to be told of what. */
import { noticeWords, type NoticeChoice, type NoticeView } from '~~/shared/notices/views'

const me = useMe()
const toasts = useToasts()
const { data: list, error, refresh } = useLiveData(() => api<NoticeView[]>('/api/notices'), (e) => e.topic === 'notice')
const { data: choices, refresh: again } = useLiveData(() => api<NoticeChoice[]>('/api/notices/choices'), () => false)
const shown = computed(() => choices.value?.filter((c) => me.role !== 'student' || c.kind === 'message') ?? [])
async function choose(kind: NoticeChoice['kind'], change: Partial<NoticeChoice>) {
  try {
    await api('/api/notices/choices', { method: 'PUT', body: { choices: choices.value!.map((c) => (c.kind === kind ? { ...c, ...change } : c)) } })
  } catch (problem) {
    toasts.show(sentenceOf(problem))
  }
  await again()
}
async function read(notice: NoticeView) {
  if (!notice.read) await api(`/api/notices/${notice.id}/read`, { method: 'POST' })
  await navigateTo(notice.path)
}
async function readAll() {
  await api('/api/notices/read', { method: 'POST' })
  await refresh()
}
useHead({ title: 'Notices · Karstland' })
</script>

<template>
  <div class="flex h-full gap-8 overflow-auto px-4 py-3 max-md:flex-col">
    <section class="min-w-0 flex-1">
      <div class="flex items-center gap-3"><h1>Notices</h1><button v-if="list?.some((n) => !n.read)" type="button" class="btn btn-small" @click="readAll">All read</button></div>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!list" class="mt-3 space-y-2" role="status" aria-label="Notices are opening"><div v-for="i in 5" :key="i" class="waiting h-14" /></div>
      <EmptyPlace v-else-if="!list.length" title="Nothing to tell">When captures of yours are planned, changed or ready, it says so here.</EmptyPlace>
      <ul v-else class="mt-3 max-w-[820px]">
        <li v-for="n in list" :key="n.id" class="border-t border-silt">
          <button type="button" class="flex w-full gap-3 py-2.5 text-left hover:bg-chalk" @click="read(n)">
            <span class="mt-1.5 size-2 shrink-0 rounded-full" :class="n.read ? '' : 'bg-pool'" :aria-label="n.read ? undefined : 'not read'" :role="n.read ? undefined : 'img'" />
            <span class="min-w-0 flex-1"><span class="block" :class="{ 'font-bold': !n.read }">{{ n.subject }}</span><span class="quiet block truncate">{{ n.body.split('\n')[0] }}</span></span>
            <span class="num quiet shrink-0">{{ momentWords(me.zone, n.at) }}</span>
          </button>
        </li>
      </ul>
    </section>
    <section class="w-[340px] shrink-0 max-md:w-full">
      <h2>Tell me when</h2>
      <table class="mt-2 w-full">
        <thead><tr class="text-slate"><th /><th class="px-2 font-normal">here</th><th class="px-2 font-normal">by mail</th></tr></thead>
        <tbody><tr v-for="c in shown" :key="c.kind" class="h-9 border-t border-silt"><td>{{ noticeWords[c.kind] }}</td>
          <td class="text-center"><input type="checkbox" class="size-4 accent-pool" :checked="c.inApp" :aria-label="`${noticeWords[c.kind]}: here`" @change="choose(c.kind, { inApp: !c.inApp })"></td>
          <td class="text-center"><input type="checkbox" class="size-4 accent-pool" :checked="c.byMail" :aria-label="`${noticeWords[c.kind]}: by mail`" @change="choose(c.kind, { byMail: !c.byMail })"></td></tr></tbody>
      </table>
      <p class="quiet mt-2">Mail about a change waits a minute. What is undone within it is never sent.</p>
    </section>
  </div>
</template>
