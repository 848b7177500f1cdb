<script setup lang="ts">
/** Who is told of a plan and its changes, besides the presenter. */
import type { PersonChoice } from '~~/shared/timetable/views'

const props = defineProps<{ people: PersonChoice[], presenter: string }>()
const told = defineModel<string[]>({ required: true })
const nameOf = (id: string) => props.people.find((p) => p.id === id)?.name ?? 'someone'
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value) told.value = [...told.value, select.value]
  select.value = ''
}
</script>

<template>
  <FormField v-slot="f" label="Told of it" :note="presenter ? `${nameOf(presenter)} is told as the presenter.` : ''">
    <ul v-if="told.length" class="mb-1.5 flex flex-wrap gap-1.5">
      <li v-for="id in told" :key="id" class="tag flex items-center gap-1">{{ nameOf(id) }} <button type="button" :aria-label="`Do not tell ${nameOf(id)}`" @click="told = told.filter((t) => t !== id)">✕</button></li>
    </ul>
    <select v-bind="f" class="field" @change="add">
      <option value="">Add a person…</option>
      <option v-for="p in people.filter((x) => x.id !== presenter && !told.includes(x.id))" :key="p.id" :value="p.id">{{ p.name }}</option>
    </select>
  </FormField>
</template>
