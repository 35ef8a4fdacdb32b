<script setup lang="ts">
import type { Person } from "@/server/client";

/** How someone is reached, and what is noted about them. */
defineProps<{ person: Person }>();
</script>

<template>
  <div v-if="person.email || person.phone || person.note" class="card">
    <a v-if="person.email" :href="`mailto:${person.email}`">{{ person.email }}</a>
    <a v-if="person.phone" :href="`tel:${person.phone.replace(/\s/g, '')}`">{{ person.phone }}</a>
    <p v-if="person.note">{{ person.note }}</p>
  </div>
</template>

<style scoped>
.card {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 2px 8px 14px 0;
  padding: 10px 14px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--enamel);
}
a {
  padding: 2px 0;
  color: var(--rim);
}
p {
  flex: 1 0 100%;
  white-space: pre-line;
}
</style>
