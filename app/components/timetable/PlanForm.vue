<script setup lang="ts">
/** Plans captures: once or by a rule, its dates shown live, clashes named with their ways out. */
import { exceptionOf, type WayOut } from '~~/core/timetable/ways-out'
import { adjusted } from '~~/core/timetable/wanted'
import { PlanCaptures, wantedOf } from '~~/shared/timetable/plan-captures'
import type { ClashGroup, Edited, PlanChoices } from '~~/shared/timetable/views'
import { check } from '~~/shared/validate'

const props = defineProps<{ choices: PlanChoices, plan: PlanCaptures }>()
const emit = defineEmits<{ close: [], planned: [], change: [plan: Partial<PlanCaptures>] }>()
const term = useTerm()
const edits = useEdits()
const toasts = useToasts()
const errors = ref<Record<string, string>>({})
const trouble = ref('')
const busy = ref(false)
const note = ref('')
const { dates, examined, problems, trouble: previewTrouble, asking } = usePlanPreview(props.plan)
const shown = computed(() => ({ ...problems.value, ...errors.value }) as Record<string, string | undefined>)

const section = computed(() => props.choices.sections.find((s) => s.id === props.plan.sectionId))
const room = computed(() => props.choices.rooms.find((r) => r.id === props.plan.roomId))
const kept = computed(() => dates.value.filter((d) => !d.skipped))
const skipped = computed(() => dates.value.filter((d) => d.skipped && d.skipped !== 'over'))
/** Why an instructor cannot plan this alone; then the team is asked. */
const beyond = computed(() => examined.value?.beyond ?? [])
const clashing = computed(() => kept.value.filter((d) => d.clash))
const skippedWords = computed(() => [...new Set(skipped.value.map((d) => d.skipped))].join(', '))

function change(part: Partial<PlanCaptures>) {
  emit('change', part)
  errors.value = {}
  trouble.value = ''
}

function chooseSection(id: string) {
  const found = props.choices.sections.find((s) => s.id === id)
  change({ sectionId: id, ...(found?.presenterIds[0] ? { presenterId: found.presenterIds[0] } : {}) })
}

function chooseRoom(id: string) {
  const found = props.choices.rooms.find((r) => r.id === id)
  change({ roomId: id, inputs: props.plan.inputs.filter((i) => found?.inputs.includes(i)) })
}

/** Takes a way out for all dates of a clash: where they are all the dates there are, the plan itself changes. */
function take(group: ClashGroup, way: WayOut) {
  const next = adjusted(wantedOf(props.plan), group.dates, exceptionOf(way), term.view!.term)
  change({ roomId: next.roomId, start: next.start, leftOut: next.leftOut, exceptions: next.exceptions })
}

const take1 = (date: string, out: boolean) => change({ leftOut: out ? [...props.plan.leftOut, date].sort() : props.plan.leftOut.filter((d) => d !== date) })

async function save() {
  const found = await check(PlanCaptures, { ...props.plan })
  errors.value = 'errors' in found ? found.errors : problems.value as Record<string, string>
  trouble.value = ''
  if (Object.keys(errors.value).length) return void nextTick(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus())
  busy.value = true
  try {
    if (beyond.value.length) toasts.show((await api<{ sentence: string }>('/api/requests', { method: 'POST', body: { note: note.value, wish: { ...props.plan } } })).sentence)
    else edits.done(await api<Edited>('/api/plans', { method: 'POST', body: { ...props.plan } }))
    emit('planned')
  } catch (error) {
    if (error instanceof ApiError && error.status === 409 && 'clashes' in error.data) examined.value = error.data as never
    else if (error instanceof ApiError && Object.keys(error.fields).length) errors.value = error.fields
    else trouble.value = sentenceOf(error)
    if (error instanceof ApiError && error.status === 409) trouble.value = error.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BenchPanel title="New capture plan" @close="emit('close')">
    <form id="plan-form" class="flex flex-col gap-3" novalidate @submit.prevent="save">
      <p class="quiet">Drag on the board to set the time.</p>
      <FormField v-slot="f" label="Section" :error="shown.sectionId" :note="section ? `${section.people} on the class list` : ''">
        <select v-bind="f" class="field" :value="plan.sectionId" @change="chooseSection(($event.target as HTMLSelectElement).value)">
          <option value="" disabled>Choose…</option>
          <option v-for="s in choices.sections" :key="s.id" :value="s.id">{{ s.code }} {{ s.title }}</option>
        </select>
      </FormField>
      <DefaultsLine v-if="plan.sectionId" :section-id="plan.sectionId" />
      <div class="grid grid-cols-2 gap-3">
        <FormField v-slot="f" label="Presenter" :error="shown.presenterId">
          <select v-bind="f" class="field" :value="plan.presenterId" @change="change({ presenterId: ($event.target as HTMLSelectElement).value })">
            <option value="" disabled>Choose…</option>
            <option v-for="p in choices.presenters" :key="p.id" :value="p.id">{{ p.name }}</option>
          </select>
        </FormField>
        <FormField v-slot="f" label="Room" :error="shown.roomId" :note="room && section && room.seats < section.people ? `seats ${room.seats}, fewer than the class list` : ''">
          <select v-bind="f" class="field" :value="plan.roomId" @change="chooseRoom(($event.target as HTMLSelectElement).value)">
            <option v-for="r in choices.rooms" :key="r.id" :value="r.id">{{ r.name }} ({{ r.seats }})</option>
          </select>
        </FormField>
      </div>
      <div class="grid grid-cols-2 gap-3">
        <FormField v-slot="f" label="Starts" :error="shown.start">
          <input v-bind="f" type="text" inputmode="numeric" placeholder="11:00" class="field num" :value="plan.start" @input="change({ start: ($event.target as HTMLInputElement).value.trim() })">
        </FormField>
        <FormField v-slot="f" label="Minutes" :error="shown.minutes">
          <input v-bind="f" type="number" min="2" max="480" class="field num" :value="plan.minutes" @input="change({ minutes: Number(($event.target as HTMLInputElement).value) })">
        </FormField>
      </div>
      <RepeatFields :plan="plan" :errors="shown" @change="change" />
      <InputChoice :model-value="plan.inputs" :has="room?.inputs ?? []" :error="shown.inputs" @update:model-value="change({ inputs: $event })" />
      <FormField v-slot="f" :label="plan.repeat === 'once' ? 'Topic (may stay empty)' : 'Title of each (may stay empty)'" :error="shown.title" :note="plan.title ? '' : 'Without one each is named by its lecture number.'">
        <input v-bind="f" type="text" maxlength="160" class="field" :value="plan.title" @input="change({ title: ($event.target as HTMLInputElement).value })">
      </FormField>
      <ToldChoice :model-value="plan.told" :people="choices.presenters" :presenter="plan.presenterId" @update:model-value="change({ told: $event })" />
      <section v-if="dates.length" aria-labelledby="plan-dates" aria-live="polite">
        <div class="mb-1.5 flex items-baseline gap-2">
          <h3 id="plan-dates" class="text-[15px] font-semibold">{{ plural(kept.length, 'date') }}</h3>
          <span class="quiet">{{ skippedWords ? `${skippedWords} skipped` : '' }}{{ asking ? ' · looking for clashes…' : '' }}</span>
          <span v-if="clashing.length" class="tag ml-auto bg-ember-wash! font-semibold text-ember-ink!">▲ {{ plural(clashing.length, 'clash', 'clashes') }}</span>
        </div>
        <div class="mb-2 flex flex-col gap-2"><ClashWays v-for="group in examined?.clashes ?? []" :key="group.dates.join()" :sentence="group.sentence" :ways="group.ways" @take="take(group, $event)" /></div>
        <DateList :dates="dates" :rooms="choices.rooms" :room-id="plan.roomId" :start="plan.start" :checked="!!examined" @leave-out="take1($event, true)" @put-back="take1($event, false)" />
      </section>
      <p v-for="warning in examined?.warnings" :key="warning" class="rounded bg-ochre-wash px-2 py-1 text-ochre-ink">? {{ warning }}</p>
      <AskTeamNote v-if="beyond.length" v-model="note" :reasons="beyond" />
      <p v-if="trouble || previewTrouble" role="alert" class="wrong">{{ trouble || previewTrouble }}</p>
    </form>
    <template #foot>
      <div class="flex items-center gap-2">
        <button type="submit" form="plan-form" class="btn btn-main" :disabled="busy || clashing.length > 0">{{ busy ? 'Planning…' : beyond.length ? 'Ask the team' : kept.length > 1 ? `Plan ${kept.length} captures` : 'Plan this capture' }}</button>
        <button type="button" class="btn" @click="emit('close')">Close</button>
        <span v-if="clashing.length" class="quiet">{{ plural(clashing.length, 'clash', 'clashes') }} to decide first</span>
      </div>
    </template>
  </BenchPanel>
</template>
