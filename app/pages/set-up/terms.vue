<script setup lang="ts">
/** Terms: teaching days, weeks by number, and the days without teaching; the weeks they make are shown as one types. */
import { weeksOf, type Term } from '~~/core/term/calendar'
import { SaveTerm, type SpanWish } from '~~/shared/set-up/changes'
import type { TermSetUp } from '~~/shared/set-up/views'

const address = useAddress()
const open = address.text('open')
const term = useTerm()
const me = useMe()
const { data: list, error, refresh } = useLiveData(() => api<TermSetUp[]>('/api/set-up/terms'), () => false)
const form = reactive(new SaveTerm())
const { errors, busy, save: saveForm } = useSaving<SaveTerm, { id: string, sentence: string }>(SaveTerm, form, '/api/set-up/terms', async ({ id }) => {
  await Promise.all([refresh(), term.load()])
  address.set({ open: id }, 'replace')
})
const kinds = { reading: 'reading week', holiday: 'holiday', exams: 'exams' } as const

watch([open, list], () => {
  const found = list.value?.find((t) => t.id === open.value)
  errors.value = {}
  Object.assign(form, found ? { id: found.id, name: found.term.name, zone: found.term.zone, teachingFrom: found.term.teachingFrom, teachingTo: found.term.teachingTo, spans: found.term.spans.map((s) => ({ ...s })) } : { id: undefined, name: '', zone: me.zone, teachingFrom: '', teachingTo: '', spans: [] })
}, { immediate: true })

/** The weeks as they would be numbered. */
const weeks = computed(() => {
  try {
    return form.teachingFrom && form.teachingTo && form.teachingTo >= form.teachingFrom ? weeksOf({ ...form, spans: form.spans.filter((s) => s.from && s.to) } as Term) : []
  } catch {
    return []
  }
})
const addSpan = (kind: SpanWish['kind']) => form.spans.push({ kind, from: '', to: '', label: kind === 'reading' ? 'Reading' : kind === 'exams' ? 'Exams' : '' })
function save() {
  // A single day is a span of one.
  for (const span of form.spans) span.to ||= span.from
  return saveForm()
}
useHead({ title: 'Terms and weeks · Karstland' })
</script>

<template>
  <div class="flex h-full min-h-0">
    <div class="min-w-0 flex-1 overflow-auto px-4 py-3">
      <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink> · <NuxtLink to="/set-up/rooms">Rooms</NuxtLink> · <NuxtLink to="/set-up/rules">Hours and rules</NuxtLink></p>
      <div class="flex items-center gap-3"><h1>Terms and weeks</h1><button type="button" class="btn btn-main ml-auto" @click="address.set({ open: 'new' })">New term</button></div>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!list" class="mt-3 space-y-2" role="status" aria-label="Terms are opening"><div v-for="i in 3" :key="i" class="waiting h-16" /></div>
      <EmptyPlace v-else-if="!list.length" title="No term yet">A term has teaching days, numbered weeks, and days without teaching. Make one here, or <NuxtLink to="/bring-in?kind=class+data">bring in class data</NuxtLink>.</EmptyPlace>
      <ul v-else class="mt-3">
        <li v-for="t in list" :key="t.id" class="border-t border-silt py-2.5" :class="{ 'bg-pool-wash': t.id === open }">
          <button type="button" class="flex w-full items-baseline gap-3 text-left" @click="address.set({ open: t.id })">
            <span class="w-[170px] shrink-0 font-head text-[15px] font-semibold">{{ t.term.name }}<span v-if="t.current" class="tag ml-2 bg-lichen! text-[#14222a]!">now</span></span>
            <span class="w-[220px] shrink-0">{{ dateWords(t.term.teachingFrom) }} to {{ dateWords(t.term.teachingTo) }} <span class="num">{{ t.term.teachingTo.slice(0, 4) }}</span></span>
            <span class="quiet">{{ t.term.zone }} · {{ plural(t.weeks.filter((w) => w.number).length, 'teaching week') }} · {{ plural(t.sections, 'section') }} · {{ plural(t.captures, 'capture') }}</span>
          </button>
        </li>
      </ul>
    </div>
    <BenchPanel v-if="open && list" :title="form.id ? form.name : 'New term'" @close="address.set({ open: undefined })">
      <form id="term-form" class="flex flex-col gap-3" novalidate @submit.prevent="save">
        <FormField v-slot="f" label="Name" :error="errors.name"><input v-bind="f" v-model="form.name" class="field" maxlength="60"></FormField>
        <FormField v-slot="f" label="Time zone" :error="errors.zone"><input v-bind="f" v-model.trim="form.zone" class="field" placeholder="Europe/London"></FormField>
        <div class="grid grid-cols-2 gap-3">
          <FormField v-slot="f" label="Teaching from" :error="errors.teachingFrom"><input v-bind="f" v-model="form.teachingFrom" type="date" class="field"></FormField>
          <FormField v-slot="f" label="Teaching to" :error="errors.teachingTo"><input v-bind="f" v-model="form.teachingTo" type="date" class="field"></FormField>
        </div>
        <fieldset><legend class="label">Days without teaching</legend>
          <ul class="space-y-2"><li v-for="(span, i) in form.spans" :key="i" class="rounded-md border border-silt p-2">
            <div class="flex gap-2"><select v-model="span.kind" class="field w-[124px]!" :aria-label="`Kind of span ${i + 1}`"><option v-for="(text, key) in kinds" :key="key" :value="key">{{ text }}</option></select><input v-model="span.label" class="field" maxlength="40" :aria-label="`Name of span ${i + 1}`" placeholder="Founders’ day"><button type="button" class="btn btn-small" :aria-label="`Take ${span.label || 'this span'} away`" @click="form.spans.splice(i, 1)">✕</button></div>
            <div class="mt-1.5 grid grid-cols-2 gap-2"><input v-model="span.from" type="date" class="field" :aria-label="`First day of span ${i + 1}`"><input v-model="span.to" type="date" class="field" :aria-label="`Last day of span ${i + 1}; empty for a single day`"></div>
          </li></ul>
          <div class="mt-2 flex flex-wrap gap-1.5"><button v-for="(text, key) in kinds" :key="key" type="button" class="btn btn-small" @click="addSpan(key)">Add {{ text }}</button></div>
          <p v-if="errors.spans" class="wrong" role="alert">{{ errors.spans }}</p>
        </fieldset>
        <section v-if="weeks.length" aria-label="Weeks as they would be"><h3 class="mb-1 font-semibold">{{ plural(weeks.filter((w) => w.number).length, 'teaching week') }}</h3>
          <ol class="flex flex-wrap gap-1"><li v-for="w in weeks" :key="w.monday" class="tag" :class="{ 'hatched': !w.number }" :title="dateWords(w.monday)">{{ w.label }}</li></ol>
        </section>
        <p v-if="errors['']" class="wrong" role="alert">{{ errors[''] }}</p>
      </form>
      <template #foot><button type="submit" form="term-form" class="btn btn-main" :disabled="busy">{{ busy ? 'Saving…' : 'Save the term' }}</button></template>
    </BenchPanel>
  </div>
</template>
