<script setup lang="ts">
/**
 * The frame on a course page. Its site's cookies do not reach it there, so whoever is not known opens
 * a window of our own, signs in there, and that window hands the frame a short-lived ticket.
 */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import type { Refused, WatchView } from '~~/shared/watch/watch'

definePageMeta({ layout: 'plain' })
const slug = useRoute().params.slug as string
const stage = useTemplateRef('stage')
const ticket = ref(kept())
const view = shallowRef<WatchView | Refused | null>(null)
const blocked = ref(false)

/** A reload of the page within the ticket's time asks nobody again. */
function kept(): string | undefined {
  try {
    return sessionStorage.getItem(`karstland-ticket-${slug}`) ?? undefined
  } catch {
    return undefined
  }
}

const ask = () => api<WatchView | Refused>(`/api/embed/${slug}`, { ticket: ticket.value })
async function report(positionS: number, spans: [number, number][]) {
  await api(`/api/embed/${slug}/progress`, { method: 'POST', body: { positionS, spans }, ticket: ticket.value })
}

function openSignIn() {
  blocked.value = !window.open(`/enter/${slug}`, '_blank', 'popup,width=520,height=680')
}

useEventListener(window, 'message', (event: MessageEvent<{ karstlandTicket?: string, slug?: string }>) => {
  if (event.origin !== window.location.origin || event.data.slug !== slug || typeof event.data.karstlandTicket !== 'string') return
  ticket.value = event.data.karstlandTicket
  try {
    sessionStorage.setItem(`karstland-ticket-${slug}`, ticket.value)
  } catch { /* then the ticket lasts as long as the page */ }
  void stage.value?.look()
})
useIntervalFn(async () => {
  if (!ticket.value) return
  await api(`/api/embed/${slug}/renew`, { method: 'POST', ticket: ticket.value }).catch((error: unknown) => {
    if (error instanceof ApiError && error.status === 401) ticket.value = undefined
  })
}, 5 * 60_000)
useHead({ title: () => (view.value && 'name' in view.value ? view.value.name : 'Recording') })
</script>

<template>
  <main class="@container h-dvh">
    <WatchStage ref="stage" :ask="ask" :report="report" @found="view = $event">
      <template #refused="{ refused }">
        <button v-if="refused.say === 'sign-in' || ticket === undefined" type="button" class="btn" :class="{ 'btn-main': refused.say === 'sign-in' }" @click="openSignIn">Sign in to watch</button>
        <p v-if="blocked" class="mt-2 text-[#f0c264]">Your browser kept the sign-in window shut. Allow windows for this page, or <a :href="`/enter/${slug}`" target="_blank" class="text-white">open it yourself</a>.</p>
      </template>
    </WatchStage>
  </main>
</template>
