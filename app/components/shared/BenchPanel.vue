<script setup lang="ts">
/** The bench: details beside the list, never in a new window. */
defineProps<{ title: string, full?: string }>()
const emit = defineEmits<{ close: [] }>()
const heading = useTemplateRef('heading')
onMounted(() => heading.value?.focus({ preventScroll: true }))
</script>

<template>
  <aside class="flex h-full min-h-0 w-[372px] shrink-0 flex-col border-l border-silt bg-chalk max-md:fixed max-md:inset-0 max-md:z-40 max-md:w-full" :aria-label="title" @keydown.esc.stop="emit('close')">
    <div class="flex items-start gap-2 px-4 pt-3 pb-2">
      <h2 ref="heading" tabindex="-1" class="flex-1 text-[17px]! leading-tight focus:shadow-none! focus:outline-none!">{{ title }}</h2>
      <NuxtLink v-if="full" :to="full" class="btn btn-small" title="Open the full page">Full page</NuxtLink>
      <button type="button" class="btn btn-small" aria-label="Close" @click="emit('close')">✕</button>
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
      <slot />
    </div>
    <div v-if="$slots.foot" class="border-t border-silt px-4 py-3">
      <slot name="foot" />
    </div>
  </aside>
</template>
