<script setup lang="ts">
/** One clash: what is in the way, and the ways out with their reasons, best first. */
import type { WayOut } from '~~/core/timetable/ways-out'

defineProps<{ sentence: string, ways: WayOut[], name?: string }>()
const emit = defineEmits<{ take: [way: WayOut] }>()
const labelOf = (way: WayOut) => (way.kind === 'room' ? way.room : way.kind === 'start' ? way.start : 'Leave out')
const more = ref(false)
</script>

<template>
  <section class="rounded-md bg-ember-wash p-3" role="group" :aria-label="`Clash${name ? ` of ${name}` : ''}`">
    <p class="font-semibold text-ember-ink"><span aria-hidden="true">▲ </span>{{ sentence }}</p>
    <ul class="mt-2 grid grid-cols-[repeat(auto-fit,minmax(300px,1fr))] gap-1">
      <li v-for="way in more ? ways : ways.slice(0, 3).concat(ways.length > 4 ? [ways.at(-1)!] : ways.slice(3))" :key="labelOf(way)" class="flex items-center gap-2">
        <button type="button" class="btn btn-small min-w-[92px] justify-center" @click="emit('take', way)">{{ labelOf(way) }}</button>
        <span class="quiet">{{ way.reason }}</span>
      </li>
    </ul>
    <button v-if="ways.length > 4 && !more" type="button" class="quiet mt-1 underline" @click="more = true">{{ ways.length - 4 }} more ways out</button>
  </section>
</template>
