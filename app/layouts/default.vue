<script setup lang="ts">
/** The frame of every place: header, term band, the place with its bench, and what is under way. */
const me = useMe()
const term = useTerm()
const live = useLive()
const student = computed(() => me.role === 'student')

const address = useAddress()
const asked = address.text('term')
onMounted(() => live.open())
watch(asked, (id) => void term.choose(id), { immediate: true })
let later: ReturnType<typeof setTimeout> | undefined
onScopeDispose(live.listen((event) => {
  if (event.topic !== 'capture' && event.topic !== 'timetable' && event.topic !== 'again') return
  clearTimeout(later)
  later = setTimeout(term.load, 800)
}))
</script>

<template>
  <div class="grid h-dvh min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_auto_minmax(0,1fr)_auto] max-md:h-auto max-md:min-h-dvh">
    <a href="#place" class="btn absolute top-1 left-1 z-50 -translate-y-20 focus:translate-y-0">Skip to the page</a>
    <ShellHeader class="print:hidden" />
    <TermBand v-if="!student" class="print:hidden" />
    <div v-else />
    <main id="place" class="min-h-0" tabindex="-1">
      <slot />
    </main>
    <UnderWay v-if="!student" class="print:hidden" />
    <ToastList />
  </div>
</template>
