<script setup lang="ts">
defineProps<{ sentence: string }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <div role="alert" class="m-4 rounded-md border border-ember bg-ember-wash p-4 text-ink">
    <p><span aria-hidden="true" class="text-ember-ink">▲ </span>{{ sentence }}</p>
    <button type="button" class="btn btn-small mt-2" @click="emit('again')">Try again</button>
  </div>
</template>
