<script setup lang="ts">
/** Rooms × hours: the captures of one day, each drawn by its state; a dark line is now. */
import { scaleLinear } from 'd3-scale'
import { stateWord } from '~~/core/capture/states'
import { instantOf, wallOf } from '~~/core/term/calendar'
import type { RoomState } from '~~/shared/capture/views'
import type { CaptureView } from '~~/shared/timetable/views'

const props = defineProps<{ rooms: RoomState[], captures: CaptureView[], date: string, now: number, chosen?: string }>()
const emit = defineEmits<{ open: [id: string] }>()
const me = useMe()

/** The hours shown: eight to eighteen, wider when something lies outside. */
const hours = computed(() => {
  const at = (instant: number) => Number(wallOf(me.zone, instant).time.slice(0, 2))
  const first = Math.min(8, ...props.captures.map((c) => at(c.start)))
  const last = Math.max(18, ...props.captures.map((c) => at(c.end - 1) + 1))
  return Array.from({ length: last - first + 1 }, (_, i) => first + i)
})
const hourAt = (hour: number) => (hour < 24 ? instantOf(me.zone, props.date, `${String(hour).padStart(2, '0')}:00`) : instantOf(me.zone, props.date, '23:59') + 60_000)
const x = computed(() => scaleLinear().domain([hourAt(hours.value[0]!), hourAt(hours.value.at(-1)!)]).range([0, 100]))
const nowAt = computed(() => x.value(props.now))
const showNow = computed(() => nowAt.value >= 0 && nowAt.value <= 100)
const time = (instant: number) => wallOf(me.zone, instant).time
const ofRoom = (room: RoomState) => props.captures.filter((c) => c.roomId === room.id)
const filledTo = (c: CaptureView) => Math.max(0, Math.min(100, (props.now - c.start) / (c.end - c.start) * 100))
/** A running capture whose recorder fell silent: nobody can say. */
const unheard = (c: CaptureView, room: RoomState) => !room.answers && c.start <= props.now && c.end > props.now
const label = (c: CaptureView, room: RoomState) => `${c.section} ${c.course}, ${room.name}, ${time(c.start)} to ${time(c.end)}, ${unheard(c, room) ? 'no answer' : stateWord[c.state]}`
</script>

<template>
  <div class="min-w-[960px] pr-8 pb-2">
    <div class="relative ml-[138px] h-6" aria-hidden="true">
      <span v-for="hour in hours" :key="hour" class="num absolute text-[12.5px] text-slate" :class="{ 'opacity-0': showNow && Math.abs(x(hourAt(hour)) - nowAt) < 4.5 }" :style="{ left: `${x(hourAt(hour))}%`, transform: 'translateX(-50%)' }">{{ String(hour).padStart(2, '0') }}:00</span>
      <span v-if="showNow" class="num absolute z-10 rounded border border-[#14222a] bg-lichen px-1.5 text-[13px] font-bold text-[#14222a]" :style="{ left: `${nowAt}%`, transform: 'translateX(-50%)' }">{{ time(now) }}</span>
    </div>
    <ul>
      <li v-for="room in rooms" :key="room.id" class="flex h-[46px] border-t border-silt">
        <div class="w-[138px] shrink-0 pt-1 pl-4">
          <p class="truncate font-semibold">{{ room.name }}</p>
          <p class="quiet truncate"><template v-if="room.recorder && !room.answers"><span class="text-ochre-ink">? no answer</span></template><template v-else>{{ room.seats }} seats</template></p>
        </div>
        <div class="relative flex-1">
          <span v-for="hour in hours" :key="hour" class="absolute inset-y-0 border-l border-marl" :style="{ left: `${x(hourAt(hour))}%` }" />
          <span v-if="showNow" class="pointer-events-none absolute inset-y-0 w-0.5 bg-ink" :style="{ left: `${nowAt}%` }" />
          <button v-for="c in ofRoom(room)" :key="c.id" type="button" class="absolute top-[3px] z-[1] flex h-[38px] flex-col overflow-hidden rounded-[5px] text-left leading-[1.15]" :class="[unheard(c, room) ? 'border-2 border-solid border-ochre-ink bg-ochre-wash text-ink' : lookOf(c.state), { 'ring-3 ring-lichen outline-2 outline-[#14222a]': c.id === chosen }]"
            :style="{ left: `${x(c.start)}%`, width: `calc(${x(c.end) - x(c.start)}% - 2px)` }" :aria-label="label(c, room)" :title="label(c, room)" @click="emit('open', c.id)">
            <span v-if="c.state === 'recording'" class="absolute bottom-0 left-0 h-[5px] bg-ember" :style="{ width: `${filledTo(c)}%` }" />
            <span class="block truncate px-1.5 text-[12.5px] font-bold">{{ unheard(c, room) ? '? ' : signOf(c.state) }}{{ c.section.split('/')[0] }}</span>
            <span class="block truncate px-1.5 text-[12px]">{{ unheard(c, room) ? 'no answer' : c.state === 'recording' ? `until ${time(c.end)}` : ['planned', 'armed', 'filed'].includes(c.state) ? `section ${c.section.split('/')[1]}` : stateWord[c.state] }}</span>
          </button>
        </div>
      </li>
    </ul>
  </div>
</template>
