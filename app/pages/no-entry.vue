<script setup lang="ts">
/** For someone the campus knows and Karstland does not, or whose sign-in went wrong. */
definePageMeta({ layout: 'plain' })
const { as, why } = useRoute().query
useHead({ title: 'You may not come in · Karstland' })
</script>

<template>
  <main class="mx-auto max-w-[520px] p-8">
    <img src="/mark.svg" alt="" class="mb-4 size-12">
    <h1>{{ why ? 'The sign-in did not work' : 'You may not come in yet' }}</h1>
    <p class="mt-2">{{ why ?? `The campus knows you as ${as ?? 'somebody'}, but you are on no class list and not in the media team, so there is nothing here for you.` }}</p>
    <p v-if="!why" class="mt-2 text-slate">If you have just joined a class, its list may take a day to follow. Otherwise write to the media services team.</p>
    <p class="mt-4"><a href="/api/auth/sign-in" class="btn btn-main">Sign in as somebody else</a></p>
  </main>
</template>
