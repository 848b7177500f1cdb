<script setup lang="ts">
/** Rooms: seats, what they take in, minutes to turn them around, and whether instructors may plan in them. */
import { inputKinds } from '~~/shared/inputs'
import { SaveRoom } from '~~/shared/set-up/changes'
import type { RoomSetUp } from '~~/shared/set-up/views'

const address = useAddress()
const open = address.text('open')
const { data: list, error, refresh } = useLiveData(() => api<RoomSetUp[]>('/api/set-up/rooms'), () => false)
const form = reactive(new SaveRoom())
const { errors, busy, save } = useSaving<SaveRoom, { id: string, sentence: string }>(SaveRoom, form, '/api/set-up/rooms', async ({ id }) => {
  await refresh()
  address.set({ open: id }, 'replace')
})
watch([open, list], () => {
  const found = list.value?.find((r) => r.id === open.value)
  errors.value = {}
  const { recorder: _, ahead: __, ...room } = found ?? { ...new SaveRoom(), recorder: null, ahead: 0 }
  Object.assign(form, { id: undefined }, room)
}, { immediate: true })
const chosen = computed(() => list.value?.find((r) => r.id === open.value))

useHead({ title: 'Rooms · Karstland' })
</script>

<template>
  <div class="flex h-full min-h-0">
    <div class="min-w-0 flex-1 overflow-auto px-4 py-3">
      <p class="quiet"><NuxtLink to="/timetable">Timetable</NuxtLink> · <NuxtLink to="/set-up/terms">Terms and weeks</NuxtLink> · <NuxtLink to="/set-up/rules">Hours and rules</NuxtLink></p>
      <div class="flex items-center gap-3"><h1>Rooms</h1><button type="button" class="btn btn-main ml-auto" @click="address.set({ open: 'new' })">New room</button></div>
      <TroubleNote v-if="error" :sentence="error" @again="refresh" />
      <div v-else-if="!list" class="mt-3 space-y-2" role="status" aria-label="Rooms are opening"><div v-for="i in 8" :key="i" class="waiting h-9" /></div>
      <EmptyPlace v-else-if="!list.length" title="No rooms yet">A room has seats, things it can take in, and a recorder. Captures are planned in rooms.</EmptyPlace>
      <table v-else class="mt-3 w-full">
        <thead><tr class="text-left text-slate"><th class="py-1 font-normal">Room</th><th class="font-normal">Building</th><th class="text-right font-normal">Seats</th><th class="pl-4 font-normal">Takes in</th><th class="text-right font-normal">Turnaround</th><th class="pl-4 font-normal">Recorder</th><th class="font-normal">Instructors</th></tr></thead>
        <tbody>
          <tr v-for="r in list" :key="r.id" class="h-10 border-t border-silt" :class="{ 'bg-pool-wash': r.id === open, 'text-slate': r.retired }">
            <td><button type="button" class="font-semibold underline" @click="address.set({ open: r.id })">{{ r.name }}</button><span v-if="r.retired" class="quiet"> out of use</span></td>
            <td>{{ r.building }}</td><td class="num text-right">{{ r.seats }}</td><td class="pl-4">{{ r.inputs.join(', ') }}</td><td class="num text-right">{{ r.turnaroundMinutes }} min</td><td class="pl-4">{{ r.recorder ?? 'none' }}</td><td>{{ r.openToInstructors ? 'may plan' : 'ask the team' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <BenchPanel v-if="open && list" :title="form.id ? form.name : 'New room'" @close="address.set({ open: undefined })">
      <form id="room-form" class="flex flex-col gap-3" novalidate @submit.prevent="save">
        <FormField v-slot="f" label="Name" :error="errors.name"><input v-bind="f" v-model="form.name" class="field" maxlength="60"></FormField>
        <FormField v-slot="f" label="Building" :error="errors.building"><input v-bind="f" v-model="form.building" class="field" maxlength="60"></FormField>
        <div class="grid grid-cols-2 gap-3">
          <FormField v-slot="f" label="Seats" :error="errors.seats"><input v-bind="f" v-model.number="form.seats" type="number" min="1" class="field num"></FormField>
          <FormField v-slot="f" label="Minutes to turn around" :error="errors.turnaroundMinutes"><input v-bind="f" v-model.number="form.turnaroundMinutes" type="number" min="0" max="120" class="field num"></FormField>
        </div>
        <InputChoice v-model="form.inputs" :has="inputKinds" :error="errors.inputs" />
        <label class="flex items-center gap-2"><input v-model="form.openToInstructors" type="checkbox" class="size-4 accent-pool"> Instructors may plan here without asking</label>
        <label class="flex items-center gap-2"><input v-model="form.retired" type="checkbox" class="size-4 accent-pool"> Out of use</label>
        <p v-if="errors.retired || errors['']" class="wrong" role="alert">{{ errors.retired || errors[''] }}</p>
        <p v-if="chosen" class="quiet">{{ plural(chosen.ahead, 'capture') }} to come · {{ chosen.recorder ?? 'no recorder fitted' }}</p>
      </form>
      <template #foot><button type="submit" form="room-form" class="btn btn-main" :disabled="busy">{{ busy ? 'Saving…' : 'Save the room' }}</button></template>
    </BenchPanel>
  </div>
</template>
