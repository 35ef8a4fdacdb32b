<script setup lang="ts">
/** Two windows wrote the same field: the person chooses. */
defineProps<{ theirs: string; what: string }>();
defineEmits<{ mine: []; theirs: [] }>();
</script>

<template>
  <div class="clash" role="alert">
    <p>Another window changed the {{ what }} meanwhile. It now reads:</p>
    <blockquote>{{ theirs || "(nothing)" }}</blockquote>
    <button class="btn main" @click="$emit('mine')">Keep what I typed</button>
    <button class="btn" @click="$emit('theirs')">Take theirs</button>
  </div>
</template>

<style scoped>
.clash {
  margin: 8px 0;
  padding: 10px 12px;
  border: 1px solid var(--copper);
  border-radius: var(--corner);
}
blockquote {
  max-height: 120px;
  margin: 6px 0 10px;
  padding-left: 10px;
  overflow: auto;
  border-left: 3px solid var(--tin);
  white-space: pre-wrap;
}
.btn + .btn {
  margin-left: 8px;
}
</style>
