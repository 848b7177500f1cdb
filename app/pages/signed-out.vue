<script setup lang="ts">
definePageMeta({ layout: 'plain' })
useHead({ title: 'Signed out · Karstland' })
</script>

<template>
  <main class="mx-auto max-w-[520px] p-8"><img src="/mark.svg" alt="" class="mb-4 size-12"><h1>You are signed out</h1><p class="mt-2">Your session here has ended.</p><p class="mt-4"><a href="/api/auth/sign-in" class="btn btn-main">Sign in</a></p></main>
</template>
