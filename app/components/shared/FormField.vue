<script setup lang="ts">
/** A field with its label, a note and the sentence of what is wrong; binds what screen readers need. */
const props = defineProps<{ label: string, error?: string, note?: string }>()
const id = useId()
const bound = computed(() => ({ 'id': id, 'aria-invalid': props.error ? 'true' as const : undefined, 'aria-describedby': props.error || props.note ? `${id}-note` : undefined }))
</script>

<template>
  <div class="min-w-0">
    <label :for="id" class="label">{{ label }}</label>
    <slot v-bind="bound" />
    <p v-if="error" :id="`${id}-note`" class="wrong" role="alert">{{ error }}</p>
    <p v-else-if="note" :id="`${id}-note`" class="quiet mt-0.5">{{ note }}</p>
  </div>
</template>
