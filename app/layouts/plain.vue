<!-- For pages that people outside see: no navigation at all. -->
<template>
  <slot />
</template>
