<script setup lang="ts">
/** What the team settles for everybody: the campus's hours and usual starts, and what instructors may plan by themselves. */
import { SaveRules } from '~~/shared/set-up/changes'

const form = reactive(new SaveRules())
const { data, error, refresh } = useLiveData(() => api<SaveRules & { theOne: boolean }>('/api/set-up/rules'), () => false)
const { errors, busy, save } = useSaving(SaveRules, form, '/api/set-up/rules', refresh)
watch(data, (found) => {
  if (!found) return
  const { theOne: _, ...rules } = found
  Object.assign(form, rules)
})
const toggle = (n: number) => (form.usualStarts = form.usualStarts.includes(n) ? form.usualStarts.filter((x) => x !== n) : [...form.usualStarts, n].sort((a, b) => a - b))
useHead({ title: 'Hours and rules · Karstland' })
</script>

<template>
  <div class="h-full overflow-auto px-4 py-3">
    <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink> · <NuxtLink to="/set-up/terms">Terms and weeks</NuxtLink> · <NuxtLink to="/set-up/rooms">Rooms</NuxtLink></p>
    <h1>Hours and rules</h1>
    <TroubleNote v-if="error" :sentence="error" @again="refresh" />
    <form v-else class="mt-3 flex max-w-[560px] flex-col gap-4" novalidate @submit.prevent="save">
      <section class="flex flex-col gap-3"><h2>The campus</h2>
        <div class="grid grid-cols-2 gap-3">
          <FormField v-slot="f" label="Opens" :error="errors.opens"><input v-bind="f" v-model.trim="form.opens" class="field num"></FormField>
          <FormField v-slot="f" label="Closes" :error="errors.closes"><input v-bind="f" v-model.trim="form.closes" class="field num"></FormField>
        </div>
        <fieldset><legend class="label">Captures usually start at, minutes past the hour; the board snaps to these</legend>
          <div class="flex flex-wrap gap-1"><button v-for="n in [0, 5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55]" :key="n" type="button" class="btn btn-small num px-2!" :class="{ 'border-pool! bg-pool-wash!': form.usualStarts.includes(n) }" :aria-pressed="form.usualStarts.includes(n)" @click="toggle(n)">:{{ String(n).padStart(2, '0') }}</button></div>
          <p v-if="errors.usualStarts" class="wrong" role="alert">{{ errors.usualStarts }}</p>
        </fieldset>
      </section>
      <section class="flex flex-col gap-3"><h2>What instructors plan by themselves</h2>
        <p class="quiet">For their own sections, in rooms open to them. Anything beyond becomes a request that the team accepts or turns down.</p>
        <div class="grid grid-cols-3 gap-3">
          <FormField v-slot="f" label="Not before" :error="errors.instructorsFrom"><input v-bind="f" v-model.trim="form.instructorsFrom" class="field num"></FormField>
          <FormField v-slot="f" label="Not after" :error="errors.instructorsTo"><input v-bind="f" v-model.trim="form.instructorsTo" class="field num"></FormField>
          <FormField v-slot="f" label="At most, days ahead" :error="errors.instructorsDaysAhead"><input v-bind="f" v-model.number="form.instructorsDaysAhead" type="number" min="1" max="400" class="field num"></FormField>
        </div>
      </section>
      <p v-if="errors['']" class="wrong" role="alert">{{ errors[''] }}</p>
      <div><button class="btn btn-main" :disabled="busy">{{ busy ? 'Saving…' : 'Save' }}</button></div>
    </form>
  </div>
</template>
