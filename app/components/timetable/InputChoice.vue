<script setup lang="ts">
/** What to take in: only what the room has can be chosen; the rest says so. */
import { inputKinds, type InputKind } from '~~/shared/inputs'

const props = defineProps<{ has: readonly InputKind[], error?: string }>()
const chosen = defineModel<InputKind[]>({ required: true })
const toggle = (input: InputKind) => (chosen.value = chosen.value.includes(input) ? chosen.value.filter((i) => i !== input) : inputKinds.filter((i) => i === input || chosen.value.includes(i)))
const lost = computed(() => chosen.value.filter((i) => !props.has.includes(i)))
</script>

<template>
  <fieldset>
    <legend class="label">Take in</legend>
    <div class="flex flex-wrap gap-1.5">
      <template v-for="input in inputKinds" :key="input">
        <button v-if="has.includes(input)" type="button" class="btn btn-small" :class="{ 'border-pool! bg-pool-wash!': chosen.includes(input) }" :aria-pressed="chosen.includes(input)" @click="toggle(input)">
          <span v-if="chosen.includes(input)" aria-hidden="true">✓</span>{{ input }}
        </button>
        <span v-else class="inline-flex min-h-[27px] items-center rounded-[5px] border border-dashed border-edge px-2 text-[13px] text-slate">no {{ input }} here</span>
      </template>
    </div>
    <p v-if="error" class="wrong" role="alert">{{ error }}</p>
    <p v-else-if="lost.length" class="wrong">This room has no {{ lost.join(', no ') }}.</p>
  </fieldset>
</template>
