<script setup lang="ts">
/** What goes beyond an instructor's own planning, and a note to the team with the request. */
defineProps<{ reasons: string[] }>()
const note = defineModel<string>({ required: true })
</script>

<template>
  <section class="rounded-md bg-ochre-wash p-3" aria-label="Asking the team">
    <p class="text-ochre-ink">? {{ reasons.join(' ') }} You can ask the team for it; nothing is planned before they accept.</p>
    <label class="label mt-2" for="team-note">A note to the team (may stay empty)</label>
    <textarea id="team-note" v-model="note" rows="2" maxlength="600" class="field" />
  </section>
</template>
