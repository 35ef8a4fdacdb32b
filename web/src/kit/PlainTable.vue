<script setup lang="ts">
/** A page that lists what there is of something: its name, a word, and rows. */
defineProps<{ name: string; text: string }>();
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ name }}</h1>
        <p>{{ text }}</p>
      </div>
      <slot name="deeds" />
    </header>
    <slot />
  </div>
</template>

<style scoped>
.page {
  padding: 16px 20px 64px 30px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 14px;
  margin-bottom: 10px;
}
header > div {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
}
h1 {
  font-size: 24px;
  line-height: 32px;
}
p {
  color: var(--pencil);
}
.page :deep(ul) {
  list-style: none;
}
.page > :deep(h2) {
  margin-top: 18px;
  padding-bottom: 5px;
  border-bottom: 1px solid var(--ink);
  font-size: 15px;
}
.page :deep(li) {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 40px;
  padding-right: 8px;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
.page :deep(li a) {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  padding: 8px 0;
  color: inherit;
  text-decoration: none;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.page :deep(li a:hover) {
  text-decoration: underline;
}
.page :deep(li .quiet-fact) {
  color: var(--pencil);
  font-size: 14px;
}
@media (max-width: 760px) {
  .page {
    padding-left: 16px;
  }
}
</style>
