<script setup lang="ts">
/** Calendars to take along: a file now, or a private address that programs read again by themselves. */
import type { CalendarAddressView, CalendarKind, NewCalendarAddress } from '~~/shared/timetable/calendars'
import type { PlanChoices } from '~~/shared/timetable/views'

const props = defineProps<{ choices: PlanChoices, roomId?: string }>()
const emit = defineEmits<{ close: [] }>()
const me = useMe()
const toasts = useToasts()
const kind = ref<CalendarKind>(props.roomId ? 'room' : 'section')
const picked = reactive<Record<CalendarKind, string>>({ room: props.roomId ?? props.choices.rooms[0]?.id ?? '', section: props.choices.sections[0]?.id ?? '', person: me.me?.person.id ?? '' })
const { data: mine, refresh } = useLiveData(() => api<CalendarAddressView[]>('/api/calendars'), () => false)
const made = shallowRef<NewCalendarAddress | null>(null)
const kinds = computed(() => (me.role === 'staff' ? ['section', 'room', 'person'] as const : ['section', 'person'] as const))
const people = computed(() => (me.role === 'staff' ? props.choices.presenters : [{ id: me.me?.person.id ?? '', name: me.me?.person.name ?? '' }]))
const wish = computed(() => ({ kind: kind.value, id: picked[kind.value] }))

async function make() {
  try {
    made.value = await api<NewCalendarAddress>('/api/calendars', { method: 'POST', body: wish.value })
    await refresh()
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}
async function copy() {
  await navigator.clipboard.writeText(made.value!.address).then(() => toasts.show('Address copied. Add it in your calendar program as a subscription.'), () => toasts.show('Your browser did not let us copy. Select the address and copy it by hand.'))
}
async function revoke(id: string, name: string) {
  try {
    await api(`/api/calendars/${id}/revoke`, { method: 'POST' })
    if (made.value?.id === id) made.value = null
    toasts.show(`The address for ${name} is revoked. Programs that use it get nothing from now on.`)
    await refresh()
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}
</script>

<template>
  <BenchPanel title="Calendar to take along" @close="emit('close')">
    <div class="flex flex-col gap-3">
      <fieldset><legend class="label">Of</legend>
        <div class="flex gap-4"><label v-for="k in kinds" :key="k" class="flex items-center gap-1.5"><input v-model="kind" type="radio" name="calendar-kind" :value="k" class="size-4 accent-pool"> a {{ k }}</label></div>
      </fieldset>
      <FormField v-slot="f" :label="kind === 'room' ? 'Room' : kind === 'section' ? 'Section' : 'Person'">
        <select v-bind="f" v-model="picked[kind]" class="field">
          <template v-if="kind === 'room'"><option v-for="r in choices.rooms" :key="r.id" :value="r.id">{{ r.name }}</option></template>
          <template v-else-if="kind === 'section'"><option v-for="s in choices.sections" :key="s.id" :value="s.id">{{ s.code }} {{ s.title }}</option></template>
          <template v-else><option v-for="p in people" :key="p.id" :value="p.id">{{ p.name }}</option></template>
        </select>
      </FormField>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-main" @click="make">Make a private address</button>
        <a class="btn" :href="`/api/calendars/file?kind=${wish.kind}&id=${wish.id}`" download>Take the file</a>
      </div>
      <section v-if="made" class="rounded-md bg-pool-wash p-3" aria-live="polite">
        <label class="label" for="calendar-address">Address for {{ made.name }}, shown this once</label>
        <input id="calendar-address" readonly class="field num text-[12px]!" :value="made.address" @focus="($event.target as HTMLInputElement).select()">
        <button type="button" class="btn btn-small mt-2" @click="copy">Copy it</button>
        <p class="quiet mt-1">Whoever has this address can read the calendar. Revoke it below when it got into other hands.</p>
      </section>
      <section class="border-t border-silt pt-3">
        <h2>My addresses</h2>
        <p v-if="!mine?.length" class="quiet mt-1">None yet. A subscribed calendar follows every change by itself.</p>
        <ul class="mt-1.5 space-y-2"><li v-for="a in mine" :key="a.id" class="flex items-baseline gap-2"><span class="flex-1"><strong>{{ a.name }}</strong><span class="quiet block">made {{ momentWords(me.zone, a.madeAt) }}, {{ a.readAt ? `last read ${momentWords(me.zone, a.readAt)}` : 'never read' }}</span></span><button type="button" class="btn btn-small" :aria-label="`Revoke the address for ${a.name}`" @click="revoke(a.id, a.name)">Revoke</button></li></ul>
      </section>
    </div>
  </BenchPanel>
</template>
