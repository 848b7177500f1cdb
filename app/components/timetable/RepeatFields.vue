<script setup lang="ts">
/** How a plan repeats: once, or on weekdays in every, alternate or chosen weeks, until when. */
import { weekdayNames } from '~~/core/term/calendar'
import type { PlanCaptures, Repeat } from '~~/shared/timetable/plan-captures'

defineProps<{ plan: PlanCaptures, errors: Record<string, string | undefined> }>()
const emit = defineEmits<{ change: [part: Partial<PlanCaptures>] }>()
const term = useTerm()
const words: Record<Repeat, string> = { once: 'once, on one date', every: 'every teaching week', odd: 'odd weeks: 1, 3, 5 …', even: 'even weeks: 2, 4, 6 …', chosen: 'chosen weeks' }
const weekCount = computed(() => Math.max(0, ...(term.view?.weeks ?? []).map((w) => w.number ?? 0)))
const toggled = (list: number[], n: number) => (list.includes(n) ? list.filter((x) => x !== n) : [...list, n].sort((a, b) => a - b))
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <div class="flex flex-col gap-3">
    <FormField v-slot="f" label="Repeats">
      <select v-bind="f" class="field" :value="plan.repeat" @change="emit('change', { repeat: value($event) as Repeat })">
        <option v-for="(text, key) in words" :key="key" :value="key">{{ text }}</option>
      </select>
    </FormField>
    <FormField v-if="plan.repeat === 'once'" v-slot="f" label="Date" :error="errors.date">
      <input v-bind="f" type="date" class="field" :value="plan.date" @input="emit('change', { date: value($event) })">
    </FormField>
    <template v-else>
      <fieldset>
        <legend class="label">On</legend>
        <div class="flex flex-wrap gap-1">
          <button v-for="(name, i) in weekdayNames" :key="name" type="button" class="btn btn-small px-2!" :class="{ 'border-pool! bg-pool-wash!': plan.weekdays.includes(i + 1) }" :aria-pressed="plan.weekdays.includes(i + 1)" @click="emit('change', { weekdays: toggled(plan.weekdays, i + 1) })">{{ name }}</button>
        </div>
        <p v-if="errors.weekdays" class="wrong" role="alert">{{ errors.weekdays }}</p>
      </fieldset>
      <fieldset v-if="plan.repeat === 'chosen'">
        <legend class="label">In weeks</legend>
        <div class="flex flex-wrap gap-1">
          <button v-for="n in weekCount" :key="n" type="button" class="btn btn-small num min-w-[32px] justify-center px-1!" :class="{ 'border-pool! bg-pool-wash!': plan.weekNumbers.includes(n) }" :aria-label="`Week ${n}`" :aria-pressed="plan.weekNumbers.includes(n)" @click="emit('change', { weekNumbers: toggled(plan.weekNumbers, n) })">{{ n }}</button>
        </div>
        <p v-if="errors.weekNumbers || errors.weeks" class="wrong" role="alert">{{ errors.weekNumbers || errors.weeks }}</p>
      </fieldset>
      <div v-else class="grid grid-cols-2 gap-3">
        <FormField v-slot="f" label="From" :error="errors.from" :note="plan.from ? '' : 'the start of teaching'">
          <input v-bind="f" type="date" class="field" :value="plan.from" @input="emit('change', { from: value($event) })">
        </FormField>
        <FormField v-slot="f" label="Until" :error="errors.until || errors.untilDate || errors.count">
          <select v-bind="f" class="field" :value="plan.until" @change="emit('change', { until: value($event) as PlanCaptures['until'] })">
            <option value="teaching">teaching ends</option><option value="date">a date</option><option value="count">so many times</option>
          </select>
          <input v-if="plan.until === 'date'" type="date" aria-label="Last day" class="field mt-1.5" :value="plan.untilDate" @input="emit('change', { untilDate: value($event) })">
          <input v-if="plan.until === 'count'" type="number" min="1" max="200" aria-label="How many times" class="field num mt-1.5" :value="plan.count" @input="emit('change', { count: Number(value($event)) })">
        </FormField>
      </div>
    </template>
  </div>
</template>
