<script setup lang="ts">
/** A section: who is on its class list, and what holds for everything captured in it. */
import { SectionDefaults, type SectionPage } from '~~/shared/term/section'
import type { PlanChoices } from '~~/shared/timetable/views'

const route = useRoute()
const me = useMe()
const id = route.params.id as string
const { data: page, error, refresh } = useLiveData(() => api<SectionPage>(`/api/sections/${id}`), (e) => e.topic === 'timetable')
const { data: choices } = useLiveData(() => api<PlanChoices>('/api/plans/choices'), () => false)
const form = reactive(new SectionDefaults())
const { errors, busy, save } = useSaving(SectionDefaults, form, `/api/sections/${id}/defaults`, () => refresh())
watch(page, (found) => found && Object.assign(form, { ...found.defaults, told: [...found.defaults.told] }))
const number = (event: Event) => {
  const { value } = event.target as HTMLInputElement
  return value === '' ? null : Number(value)
}
useHead({ title: () => `${page.value?.code ?? 'Section'} · Karstland` })
</script>

<template>
  <div class="flex h-full gap-8 overflow-auto px-4 py-3 max-md:flex-col">
    <section class="min-w-0 flex-1">
      <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink></p>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!page" class="space-y-2" role="status" aria-label="The section is opening"><div v-for="i in 8" :key="i" class="waiting h-8" /></div>
      <template v-else>
        <h1>{{ page.code }} {{ page.title }}</h1>
        <p class="text-slate">{{ page.term }} · {{ plural(page.list.filter((e) => e.role === 'student').length, 'student') }}<template v-if="page.list.some((e) => !e.came)"> · {{ page.list.filter((e) => !e.came).length }} have never come here</template></p>
        <h2 class="mt-4">Class list</h2>
        <p v-if="!page.list.length" class="quiet mt-1">Nobody yet. Class lists come with class data.</p>
        <table class="mt-1 w-full max-w-[760px]"><tbody>
          <tr v-for="e in page.list" :key="`${e.personId} ${e.role}`" class="h-8 border-t border-marl"><td>{{ e.name }}</td><td class="quiet">{{ e.email }}</td><td>{{ e.role }}</td><td class="quiet">{{ e.to && e.to < me.campusNow() ? 'has left' : e.from && e.from > me.campusNow() ? `joins ${momentWords(me.zone, e.from)}` : e.came ? '' : 'never came' }}</td></tr>
        </tbody></table>
      </template>
    </section>
    <section v-if="page" class="w-[360px] shrink-0 max-md:w-full">
      <h2>What holds here by default</h2>
      <form class="mt-2 flex flex-col gap-3" novalidate @submit.prevent="save">
        <fieldset><legend class="label">When a recording is ready</legend>
          <label class="flex items-center gap-2"><input v-model="form.release" type="radio" value="held" class="size-4 accent-pool"> it stays held until somebody releases it</label>
          <label class="mt-1 flex items-center gap-2"><input v-model="form.release" type="radio" value="class list" class="size-4 accent-pool"> it is released to the class list</label>
        </fieldset>
        <div v-if="form.release === 'class list'" class="grid grid-cols-2 gap-3">
          <FormField v-slot="f" label="Opens, days after" :error="errors.opensDays" :note="form.opensDays ? '' : 'at once'"><input v-bind="f" type="number" min="0" class="field num" :value="form.opensDays ?? ''" @input="form.opensDays = number($event)"></FormField>
          <FormField v-slot="f" label="Closes, days after" :error="errors.closesDays" :note="form.closesDays ? '' : 'never'"><input v-bind="f" type="number" min="1" class="field num" :value="form.closesDays ?? ''" @input="form.closesDays = number($event)"></FormField>
        </div>
        <label v-if="form.release === 'class list'" class="flex items-center gap-2"><input v-model="form.captions" type="checkbox" class="size-4 accent-pool"> only when its captions have been checked</label>
        <FormField v-slot="f" label="Subfolder of each recording" :error="errors.folderPattern" note="May name {week}, {weekday}, {course} and {section}; empty for none."><input v-bind="f" v-model="form.folderPattern" class="field" maxlength="60" placeholder="Week {week}"></FormField>
        <ToldChoice v-if="choices" v-model="form.told" :people="choices.presenters" presenter="" />
        <p v-if="errors['']" class="wrong" role="alert">{{ errors[''] }}</p>
        <div><button class="btn btn-main" :disabled="busy">{{ busy ? 'Saving…' : 'Save' }}</button></div>
      </form>
    </section>
  </div>
</template>
