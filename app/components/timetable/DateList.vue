<script setup lang="ts">
/** The dates a plan makes, with the reason for each one skipped; clashing ones stand out. */
import { wallOf } from '~~/core/term/calendar'
import type { DateView, RoomView } from '~~/shared/timetable/views'

const props = defineProps<{ dates: DateView[], rooms: RoomView[], roomId: string, start: string, checked: boolean }>()
const emit = defineEmits<{ leaveOut: [date: string], putBack: [date: string] }>()
const me = useMe()
const elsewhere = (d: DateView) => {
  const room = d.roomId !== props.roomId ? props.rooms.find((r) => r.id === d.roomId)?.name : undefined
  const time = wallOf(me.zone, d.start).time
  return [room, time !== props.start && !d.skipped ? time : undefined].filter(Boolean).join(', ')
}
</script>

<template>
  <ol class="max-h-[268px] overflow-y-auto rounded-md border border-silt" tabindex="0" aria-label="Dates of this plan">
    <li v-for="d in dates" :key="d.date" class="flex min-h-[31px] items-center gap-3 border-b border-marl px-2.5 last:border-0" :class="{ 'bg-ember-wash': d.clash, 'text-slate': d.skipped }">
      <span class="num w-[46px] shrink-0 text-[13px]">{{ d.week ? `Wk ${d.week}` : '–' }}</span>
      <span class="w-[88px] shrink-0">{{ dateWords(d.date) }}</span>
      <span v-if="d.skipped" class="flex-1">{{ d.skipped }}</span>
      <span v-else-if="d.clash" class="flex-1 font-semibold text-ember-ink"><span aria-hidden="true">▲ </span>taken</span>
      <span v-else class="flex-1">{{ elsewhere(d) || (checked ? 'free' : '') }}</span>
      <button v-if="d.skipped === 'left out'" type="button" class="btn btn-small min-h-[25px]!" :aria-label="`Put ${dateWords(d.date)} back`" @click="emit('putBack', d.date)">Put back</button>
      <button v-else-if="!d.skipped" type="button" class="btn btn-small min-h-[25px]!" :aria-label="`Leave ${dateWords(d.date)} out`" @click="emit('leaveOut', d.date)">Leave out</button>
    </li>
  </ol>
</template>
