<script setup lang="ts">
/** Where students land: what is new in their classes. */
import type { FilingView } from '~~/shared/library/views'

const me = useMe()
const { data: all, error, refresh } = useLiveData(() => api<FilingView[]>('/api/filings'), (e) => e.topic === 'recording')
const now = useCampusNow()
const open = computed(() => (all.value ?? []).filter((f) => f.opensAt === null || f.opensAt <= now.value))
useHead({ title: 'New in my classes · Karstland' })
</script>

<template>
  <div class="mx-auto h-full max-w-[1000px] overflow-auto px-4 py-4">
    <h1>New in my classes</h1>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <div v-else-if="!all" class="mt-4 space-y-3" role="status" aria-label="Your recordings are opening"><div v-for="i in 6" :key="i" class="waiting h-[72px]" /></div>
    <EmptyPlace v-else-if="!open.length" title="Nothing to watch yet">Recordings of your classes appear here when your instructors release them.</EmptyPlace>
    <ul v-else class="mt-3">
      <li v-for="f in open" :key="f.filingId" class="border-t border-silt">
        <NuxtLink :to="`/watch/${f.recordingId}`" class="flex items-center gap-4 py-2.5 text-ink no-underline hover:bg-chalk">
          <img v-if="f.poster" :src="f.poster" alt="" loading="lazy" width="112" height="63" class="h-[63px] w-[112px] rounded object-cover">
          <span v-else class="grid h-[63px] w-[112px] place-items-center rounded border border-silt text-slate">sound</span>
          <span class="min-w-0 flex-1"><span class="block truncate text-[16px] font-bold">{{ f.topic }}</span><span class="text-slate">{{ f.section }} · {{ f.week }}<template v-if="f.start"> · {{ momentWords(me.zone, f.start) }}</template> · {{ f.presenter }}</span></span>
          <span class="num text-slate">{{ clockLength(f.seconds) }}</span>
        </NuxtLink>
      </li>
    </ul>
  </div>
</template>
