<script setup lang="ts">
const toasts = useToasts()
</script>

<template>
  <div role="status" aria-live="polite" class="pointer-events-none fixed bottom-12 left-4 z-50 flex flex-col gap-2">
    <div v-for="toast in toasts.list" :key="toast.id" class="pointer-events-auto flex max-w-[520px] items-center gap-3 rounded-md bg-[#14222a] px-4 py-2.5 text-white shadow-lg">
      <span>{{ toast.text }}</span>
      <button v-if="toast.action" type="button" class="font-bold whitespace-nowrap text-lichen underline" @click="toasts.drop(toast.id); toast.action.run()">{{ toast.action.label }}</button>
      <button type="button" class="text-[#b9c7c5]" aria-label="Dismiss" @click="toasts.drop(toast.id)">✕</button>
    </div>
  </div>
</template>
