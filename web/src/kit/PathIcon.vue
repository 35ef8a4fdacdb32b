<script setup lang="ts">
/** An icon drawn from its path alone: rows have too many to make each a component of its own. */
defineProps<{ path: string; size?: number }>();
</script>

<template>
  <svg :width="size ?? 18" :height="size ?? 18" viewBox="0 0 24 24" aria-hidden="true">
    <path :d="path" fill="currentcolor" />
  </svg>
</template>
