<script setup lang="ts">
/** A recording to watch: the player, its name and where it comes from; nothing else. */
import type { Refused, WatchView } from '~~/shared/watch/watch'

definePageMeta({ layout: 'plain' })
const route = useRoute()
const id = route.params.id as string
/** Somebody who followed a placed link is told why when they may not watch. */
const by = typeof route.query.by === 'string' ? route.query.by : undefined
const view = shallowRef<WatchView | Refused | null>(null)
const name = computed(() => (view.value && 'name' in view.value ? view.value : null))
const base = by ? `/api/embed/${by}` : `/api/recordings/${id}`

const ask = () => api<WatchView | Refused>(by ? base : `${base}/watch`)
async function report(positionS: number, spans: [number, number][]) {
  await api(`${base}/progress`, { method: 'POST', body: { positionS, spans } })
}
const signIn = computed(() => `/api/auth/sign-in?to=${encodeURIComponent(route.fullPath)}`)
useHead({ title: () => name.value?.name ?? 'Watch · Karstland' })
</script>

<template>
  <div class="flex min-h-dvh flex-col">
    <header class="flex h-[46px] items-center gap-2 bg-cavern px-4 text-white"><NuxtLink to="/" class="flex items-center gap-2 text-white no-underline"><img src="/mark.svg" alt="" class="size-6"><span class="font-head text-[17px] font-bold">Karstland</span></NuxtLink></header>
    <main class="mx-auto w-full max-w-[1180px] flex-1">
      <div class="@container h-[min(70vh,640px)] max-md:h-[56vw] max-md:min-h-[250px]">
        <WatchStage :ask="ask" :report="report" @found="view = $event">
          <template #refused="{ refused }"><a v-if="refused.say === 'sign-in'" :href="signIn" class="btn btn-main">Sign in</a><NuxtLink v-else to="/" class="btn">To my recordings</NuxtLink></template>
        </WatchStage>
      </div>
      <div v-if="name" class="px-4 py-4">
        <h1>{{ name.name }}</h1>
        <p class="mt-1 text-slate">{{ name.section }} · {{ name.when }}<template v-if="name.room"> · {{ name.room }}</template> · {{ name.presenter }}</p>
        <p class="quiet mt-3 max-sm:hidden">Keys: space plays and pauses, ← → jump ten seconds, f fills the screen, m mutes.</p>
      </div>
    </main>
  </div>
</template>
