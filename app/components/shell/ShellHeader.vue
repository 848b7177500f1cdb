<script setup lang="ts">
import { Bell, CircleQuestionMark } from '@lucide/vue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

const me = useMe()
const { data: told } = useLiveData(() => api<{ unread: number }>('/api/notices/unread'), (e) => e.topic === 'notice')
const unread = computed(() => told.value?.unread ?? 0)
const places = computed(() => {
  if (me.role === 'staff') return [['/today', 'Today'], ['/timetable', 'Timetable'], ['/library', 'Library'], ['/course-pages', 'Course pages']]
  if (me.role === 'instructor') return [['/library', 'My sections'], ['/timetable', 'Timetable'], ['/course-pages', 'Course pages']]
  return [['/new', 'New in my classes']]
})
const route = useRoute()
const place = computed(() => route.path.split('/')[1] || 'start')
const initials = computed(() => (me.me?.person.name ?? '').split(' ').map((part) => part[0]).join('').slice(0, 2))
const menu = computed(() => (me.role === 'staff' ? [['/messages', 'Messages to the team'], ['/set-up/terms', 'Terms and weeks'], ['/set-up/rooms', 'Rooms'], ['/set-up/rules', 'Hours and rules']] as const : []))
/** The chosen term and weeks go along from place to place. */
const kept = computed(() => ({ ...(route.query.term ? { term: route.query.term } : {}), ...(route.query.weeks ? { weeks: route.query.weeks } : {}) }))

async function leave() {
  const { address } = await api<{ address: string }>('/api/auth/sign-out', { method: 'POST' })
  window.location.assign(address)
}
</script>

<template>
  <header class="flex h-[46px] items-stretch gap-6 bg-cavern px-4 text-white max-md:gap-2">
    <NuxtLink to="/" class="flex items-center gap-2 text-white no-underline" aria-label="Karstland, start">
      <img src="/mark.svg" alt="" class="size-6">
      <span class="font-head text-[17px] font-bold max-sm:sr-only">Karstland</span>
    </NuxtLink>
    <nav aria-label="Places" class="flex items-stretch overflow-x-auto">
      <NuxtLink v-for="[to, name] in places" :key="to" :to="{ path: to, query: kept }" class="flex items-center border-b-3 px-3 whitespace-nowrap text-white no-underline"
        :class="route.path.startsWith(to!) ? 'border-lichen font-bold' : 'border-transparent hover:border-edge'" :aria-current="route.path.startsWith(to!) ? 'page' : undefined">
        {{ name }}
      </NuxtLink>
    </nav>
    <NuxtLink :to="{ path: `/help/${place}`, query: { from: route.fullPath } }" class="ml-auto flex items-center gap-1.5 text-white no-underline hover:underline"><CircleQuestionMark :size="17" aria-hidden="true" /><span class="max-sm:sr-only">Help</span></NuxtLink>
    <NuxtLink to="/notices" class="flex items-center gap-1.5 text-white no-underline hover:underline" :aria-label="unread ? `Notices, ${unread} not read` : 'Notices'">
      <Bell :size="17" aria-hidden="true" /><span v-if="unread" class="num rounded-full bg-lichen px-1.5 text-[12px] font-bold text-[#14222a]">{{ unread }}</span>
    </NuxtLink>
    <Menu as="div" class="relative flex items-center">
      <MenuButton class="grid size-8 place-items-center rounded-full bg-lichen text-[13px] font-bold text-[#14222a]" :aria-label="`${me.me?.person.name}, menu`">{{ initials }}</MenuButton>
      <MenuItems class="absolute top-11 right-0 z-40 w-64 rounded-md border border-edge bg-chalk p-2 text-ink shadow-lg focus:outline-none">
        <div class="px-2 pb-2">
          <p class="font-semibold">{{ me.me?.person.name }}</p>
          <p class="quiet">{{ me.me?.person.email }}</p>
        </div>
        <MenuItem v-for="[to, name] in menu" :key="to" v-slot="{ active }">
          <NuxtLink :to="to" class="block rounded px-2 py-1.5 text-ink no-underline" :class="{ 'bg-pool-wash': active }">{{ name }}</NuxtLink>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button type="button" class="w-full rounded px-2 py-1.5 text-left" :class="{ 'bg-pool-wash': active }" @click="leave">Sign out</button>
        </MenuItem>
      </MenuItems>
    </Menu>
  </header>
</template>
