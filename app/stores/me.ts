/** Who is here, and the campus clock. */
import { campusAt, ordinary, type ClockSetting } from '~~/core/clock/clock'
import type { Me } from '~~/shared/term/views'

export const useMe = defineStore('me', () => {
  const me = shallowRef<Me | null>(null)
  const clock = shallowRef<ClockSetting>(ordinary)
  /** server's real time less ours, ms */
  const skew = ref(0)

  async function load(): Promise<void> {
    me.value = await api<Me>('/api/me')
    setClock(me.value.clock, me.value.serverNow)
  }

  function setClock(setting: ClockSetting, serverNow: number): void {
    clock.value = setting
    skew.value = serverNow - Date.now()
  }

  const campusNow = () => campusAt(clock.value, Date.now() + skew.value)
  const role = computed(() => me.value?.person.role)
  const zone = computed(() => me.value?.zone ?? 'UTC')
  return { me, clock, load, setClock, campusNow, role, zone }
})
