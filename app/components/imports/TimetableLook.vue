<script setup lang="ts">
/** The dry run of a timetable: columns, rows by what becomes of them, clashes with ways out, and a whole set proposed. */
import { useVirtualizer } from '@tanstack/vue-virtual'
import { fields, type Field, type Mapping } from '~~/core/timetable/rows'
import { rangesOf } from '~~/core/timetable/rule'
import type { WayOut } from '~~/core/timetable/ways-out'
import { fieldWords, type PlanLine, type RowStatus, type TimetableOptions, type TimetableResult } from '~~/shared/imports/views'

const props = defineProps<{ result: TimetableResult, options: TimetableOptions, open: boolean, rollOver: boolean, busy: boolean }>()
const emit = defineEmits<{ tell: [path: string, body?: object] }>()
const address = useAddress()
const asked = address.text('rows')
const statuses: RowStatus[] = ['clash', 'not understood', 'new', 'changed', 'gone', 'same', 'left out']
const looks: Record<RowStatus, string> = { 'clash': 'bg-ember-wash! text-ember-ink!', 'not understood': 'bg-ochre-wash! text-ochre-ink!', 'new': 'bg-moss-wash! text-moss-ink!', 'changed': 'bg-pool-wash! text-pool-ink!', 'gone': 'bg-marl! line-through', 'same': '', 'left out': 'text-slate! line-through' }
const signs: Partial<Record<RowStatus, string>> = { 'clash': '▲ ', 'not understood': '? ', 'new': '+ ', 'changed': '~ ', 'gone': '− ' }
const shown = computed(() => statuses.find((s) => s === asked.value))
const lines = computed(() => (shown.value ? props.result.lines.filter((l) => l.status === shown.value) : [...props.result.lines].sort((a, b) => statuses.indexOf(a.status) - statuses.indexOf(b.status))))
const clashOf = computed(() => new Map(props.result.clashes.map((c) => [c.plan, c])))

const mapping = reactive<Mapping>(JSON.parse(JSON.stringify(props.result.mapping)) as Mapping)
watch(() => props.result.mapping, (next) => Object.assign(mapping, JSON.parse(JSON.stringify(next))))
const mapsOpen = ref(props.result.lack !== '')
function map(field: Field, column: string) {
  if (column) mapping.columns[field] = column
  else delete mapping.columns[field]
  emit('tell', 'mapping', { mapping: { columns: { ...mapping.columns }, dateOrder: mapping.dateOrder } })
}
function order(dateOrder: string) {
  emit('tell', 'mapping', { mapping: { columns: { ...mapping.columns }, dateOrder } })
}
const take = (line: PlanLine, way: WayOut) => emit('tell', 'decide', { plan: line.plan, dates: clashOf.value.get(line.plan)!.dates, way })
const leftOut = computed(() => props.options.leftOut ?? [])
const setOut = (line: PlanLine, out: boolean) => emit('tell', 'left-out', { plans: out ? [...leftOut.value, line.plan] : leftOut.value.filter((p) => p !== line.plan) })
const wayWords = (way: WayOut) => (way.kind === 'room' ? way.room : way.kind === 'start' ? `at ${way.start}` : 'left out')

const scroller = useTemplateRef('scroller')
const list = useVirtualizer(computed(() => ({ count: lines.value.length, getScrollElement: () => scroller.value, estimateSize: (i: number) => (lines.value[i]!.status === 'clash' ? 150 : 38), overscan: 12, getItemKey: (i: number) => lines.value[i]!.plan })))
</script>

<template>
  <div class="flex flex-col px-4 pt-2">
    <details v-if="!rollOver && result.columns.length" class="mb-2 max-w-[1100px] rounded-md border border-silt bg-chalk px-3 py-2" :open="mapsOpen">
      <summary class="cursor-pointer font-semibold">What the columns hold <span class="quiet font-normal">{{ result.rowCount }} rows, {{ result.encoding }}</span></summary>
      <p v-if="result.lack" class="wrong" role="alert">{{ result.lack }}</p>
      <div class="mt-2 grid grid-cols-[repeat(auto-fill,minmax(160px,1fr))] gap-2">
        <label v-for="field in fields" :key="field" class="min-w-0"><span class="label">{{ fieldWords[field] }}</span>
          <select class="field" :disabled="!open" :value="mapping.columns[field] ?? ''" @change="map(field, ($event.target as HTMLSelectElement).value)"><option value="">in no column</option><option v-for="c in result.columns" :key="c">{{ c }}</option></select>
          <span class="quiet block truncate">{{ mapping.columns[field] ? result.sample.map((r) => r[mapping.columns[field]!]).filter(Boolean).slice(0, 2).join(', ') : '' }}</span>
        </label>
        <label><span class="label">5/10/2026 is</span><select class="field" :disabled="!open" :value="mapping.dateOrder" @change="order(($event.target as HTMLSelectElement).value)"><option value="dmy">5 October</option><option value="mdy">May 10</option></select></label>
      </div>
    </details>
    <div class="flex flex-wrap items-center gap-2">
      <button type="button" class="btn btn-small" :class="{ 'border-pool! bg-pool-wash!': !shown }" :aria-pressed="!shown" @click="address.set({ rows: undefined })">all <span class="num">{{ result.lines.length }}</span></button>
      <template v-for="s in statuses" :key="s"><button v-if="result.counts[s]" type="button" class="btn btn-small" :class="{ 'border-pool! bg-pool-wash!': shown === s }" :aria-pressed="shown === s" @click="address.set({ rows: s })">{{ signs[s] }}{{ s }} <span class="num">{{ result.counts[s] }}</span></button></template>
      <span class="quiet">taking it in writes {{ plural(result.writes, 'capture') }}<template v-if="result.cancels"> and cancels {{ result.cancels }}</template></span>
      <button v-if="open && result.counts.clash" type="button" class="btn ml-auto" :disabled="busy" @click="emit('tell', 'propose')">Resolve all…</button>
    </div>
    <section v-if="result.proposals?.length" aria-labelledby="proposed" class="mt-2 max-w-[1100px] rounded-md border-2 border-pool bg-chalk p-3">
      <h2 id="proposed">A way out for {{ plural(result.proposals.length, 'plan') }}</h2>
      <ul class="mt-1.5 max-h-[220px] overflow-y-auto" tabindex="0" aria-label="Proposed ways out"><li v-for="p in result.proposals" :key="p.plan" class="flex gap-3 border-t border-marl py-1"><span class="w-[110px] shrink-0 font-semibold">{{ p.section }}</span><span class="w-[150px] shrink-0">→ {{ wayWords(p.way) }}</span><span class="quiet">{{ p.dates.length === 1 ? dateWords(p.dates[0]!) : `${p.dates.length} dates` }} · {{ p.way.reason }}</span></li></ul>
      <div class="mt-2 flex gap-2"><button type="button" class="btn btn-main" :disabled="busy" @click="emit('tell', 'accept')">Take all of these</button><button type="button" class="btn" :disabled="busy" @click="emit('tell', 'left-out', { plans: leftOut })">Settle one by one</button></div>
    </section>
    <div ref="scroller" class="mt-2 min-h-[200px] flex-1 overflow-auto border-t border-silt" tabindex="0" aria-label="Rows of the timetable">
      <p v-if="!lines.length" class="quiet p-3">{{ result.lack ? 'No row can be read before that.' : 'No rows of this kind.' }}</p>
      <ul class="relative" :style="{ height: `${list.getTotalSize()}px` }">
        <li v-for="v in list.getVirtualItems()" :key="String(v.key)" :ref="(el) => list.measureElement(el as Element | null)" :data-index="v.index" class="absolute inset-x-0 border-b border-marl py-1.5" :style="{ transform: `translateY(${v.start}px)` }">
          <template v-for="line in [lines[v.index]!]" :key="line.plan">
            <div class="flex items-baseline gap-3">
              <span class="tag w-[112px] shrink-0 text-center" :class="looks[line.status]">{{ signs[line.status] }}{{ line.status }}</span>
              <span v-if="line.rows.length && !rollOver" class="num quiet w-[92px] shrink-0 truncate" :title="`rows ${line.rows.join(', ')}`">{{ line.rows.length === 1 ? `row ${line.rows[0]}` : rangesOf(line.rows).replace('weeks', 'rows') }}</span>
              <span v-if="line.section" class="w-[104px] shrink-0 font-semibold">{{ line.section }}</span>
              <span class="min-w-0 flex-1"><span :class="{ 'text-slate line-through': line.status === 'gone' || line.status === 'left out' }">{{ line.words }}</span><span v-if="line.fields.length" class="quiet"> changed: {{ line.fields.join(', ') }}</span><span v-if="line.sentence" :class="line.status === 'not understood' ? '' : 'text-pool-ink'"> {{ line.sentence }}</span></span>
              <span v-if="line.captures" class="num quiet shrink-0">{{ plural(line.captures, 'capture') }}</span>
              <button v-if="open && ['new', 'changed', 'clash'].includes(line.status)" type="button" class="btn btn-small shrink-0" :disabled="busy" :aria-label="`Leave ${line.section} out`" @click="setOut(line, true)">Leave out</button>
              <button v-if="open && line.status === 'left out'" type="button" class="btn btn-small shrink-0" :disabled="busy" @click="setOut(line, false)">Take in</button>
            </div>
            <div v-if="line.status === 'clash' && clashOf.get(line.plan)" class="mt-1.5 ml-[124px] max-w-[760px]"><ClashWays :name="line.section" :sentence="clashOf.get(line.plan)!.sentence" :ways="clashOf.get(line.plan)!.ways" @take="take(line, $event)" /></div>
          </template>
        </li>
      </ul>
    </div>
    <ul v-if="result.warnings.length && !shown" class="max-h-[92px] overflow-y-auto border-t border-silt py-2" tabindex="0" aria-label="Warnings"><li v-for="w in result.warnings" :key="w" class="text-ochre-ink">? {{ w }}</li></ul>
  </div>
</template>
