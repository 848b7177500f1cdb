<script setup lang="ts">
/** What class data would change: new, changed and gone of each kind; wrong rows first. */
import { kinds, type Kind } from '~~/core/people/class-data'
import type { ClassDataResult } from '~~/shared/imports/views'

const props = defineProps<{ result: ClassDataResult }>()
const names: Record<Kind, string> = { terms: 'Terms', courses: 'Courses', sections: 'Sections', people: 'People', enrolments: 'Class lists' }
const signs = { added: '+', changed: '~', gone: '−' } as const
const first = kinds.find((k) => props.result.kinds[k].added || props.result.kinds[k].changed || props.result.kinds[k].gone) ?? 'terms'
const kind = ref<Kind>(first)
const shown = computed(() => (['added', 'changed', 'gone'] as const).flatMap((what) => props.result.kinds[kind.value].lines[what].map((line) => ({ what, line }))))
const total = computed(() => props.result.kinds[kind.value].added + props.result.kinds[kind.value].changed + props.result.kinds[kind.value].gone)
const word = { added: 'new', changed: 'changed', gone: 'gone' }
</script>

<template>
  <div class="overflow-auto px-4 pt-3 pb-6">
    <section v-if="result.errors.length" role="alert" class="mb-4 max-w-[900px] rounded-md border border-ember bg-ember-wash p-3">
      <h2><span aria-hidden="true">▲ </span>{{ plural(result.errors.length, 'row is wrong', 'rows are wrong') }}</h2>
      <ul class="mt-1.5 max-h-[220px] space-y-1 overflow-y-auto" tabindex="0" aria-label="Rows that are wrong"><li v-for="(e, i) in result.errors" :key="i"><span class="num">{{ e.file }}, row {{ e.row }}, {{ e.column }}:</span> {{ e.sentence }}</li></ul>
    </section>
    <table class="w-full max-w-[640px]">
      <thead><tr class="text-right text-slate"><th class="py-1 text-left font-normal">Kind</th><th class="font-normal">new</th><th class="font-normal">changed</th><th class="font-normal">gone</th><th class="font-normal">the same</th></tr></thead>
      <tbody>
        <tr v-for="k in kinds" :key="k" class="num h-9 border-t border-silt text-right" :class="{ 'bg-pool-wash': k === kind }">
          <td class="text-left font-sans"><button type="button" class="font-semibold underline" :aria-pressed="k === kind" @click="kind = k">{{ names[k] }}</button></td>
          <td>{{ result.kinds[k].added }}</td><td>{{ result.kinds[k].changed }}</td><td>{{ result.kinds[k].gone }}</td><td>{{ result.kinds[k].same }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="result.kinds.people.gone || result.kinds.courses.gone || result.kinds.sections.gone" class="quiet mt-1">People, courses and sections that are gone stay here, since recordings may be theirs; class lists follow the registry.</p>
    <h2 class="mt-5">{{ names[kind] }}</h2>
    <p v-if="!total" class="quiet mt-1">Nothing differs.</p>
    <ul class="mt-1.5 max-w-[900px]">
      <li v-for="({ what, line }, i) in shown" :key="i" class="flex gap-3 border-t border-marl py-1.5"><span class="w-[76px] shrink-0"><span class="num" aria-hidden="true">{{ signs[what] }}</span> {{ word[what] }}</span><span>{{ line.what }}<span v-if="line.changes.length" class="quiet block">{{ line.changes.join(' · ') }}</span></span></li>
    </ul>
    <p v-if="shown.length < total" class="quiet mt-1">and {{ total - shown.length }} more</p>
  </div>
</template>
