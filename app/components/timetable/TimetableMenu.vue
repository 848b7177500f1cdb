<script setup lang="ts">
/** What else is done with the timetable: each a page of its own. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

const me = useMe()
const all = [['/timetable/requests', 'Requests'], ['/bring-in?kind=timetable', 'Bring in a timetable'], ['/bring-in?kind=class+data', 'Bring in class data'], ['/bring-in?kind=roll-over', 'Roll a term over'], ['/timetable/history', 'What was changed'], ['/set-up/terms', 'Terms and weeks'], ['/set-up/rooms', 'Rooms'], ['/set-up/rules', 'Hours and rules']] as const
/** Instructors see what is theirs. */
const ways = computed(() => (me.role === 'staff' ? all : all.filter(([to]) => to.startsWith('/timetable/'))))
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn">More ▾</MenuButton>
    <MenuItems class="absolute top-9 right-0 z-40 w-60 rounded-md border border-edge bg-chalk p-1.5 shadow-lg focus:outline-none">
      <MenuItem v-for="[to, name] in ways" :key="to" v-slot="{ active }"><NuxtLink :to="to" class="block rounded px-2 py-1.5 text-ink no-underline" :class="{ 'bg-pool-wash': active }">{{ name }}</NuxtLink></MenuItem>
    </MenuItems>
  </Menu>
</template>
