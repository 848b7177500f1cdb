/** Campus time that moves, ms; once a second, oftener when the campus clock runs fast. */
export function useCampusNow() {
  const store = useMe()
  const now = ref(store.campusNow())
  const every = computed(() => (store.clock.rate > 5 ? 200 : 1000))
  let timer: ReturnType<typeof setInterval>
  watch(every, (ms) => {
    clearInterval(timer)
    timer = setInterval(() => (now.value = store.campusNow()), ms)
  }, { immediate: true })
  watch(() => store.clock, () => (now.value = store.campusNow()))
  onScopeDispose(() => clearInterval(timer))
  return now
}
