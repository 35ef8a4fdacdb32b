<script setup lang="ts">
import type { Group } from "@/server/client";
import { listDue } from "@/words/row";

/** The lists that are due under a head: no to-dos, without minutes, and not counted. */
defineProps<{ lists: NonNullable<Group["lists"]>; today: string }>();
</script>

<template>
  <ul class="lists">
    <li v-for="list in lists" :key="list.id">
      <router-link class="list" :to="`/list/${list.id}`">
        <span class="dot" :style="{ background: `var(--${list.colour})` }" />
        <span class="name">{{ list.name }}</span>
        <span class="fact">list</span>
        <span v-if="list.progress" class="fact"
          >{{ list.progress.done }} of {{ list.progress.total }}</span
        >
        <span class="fact due" :class="{ late: list.late }">{{ listDue(list, today) }}</span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
.lists {
  padding: 0;
  list-style: none;
}
.list {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 40px;
  padding: 2px 10px;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
  color: inherit;
  text-decoration: none;
}
.list:hover {
  background: var(--wash);
}
.dot {
  flex: none;
  width: 12px;
  height: 12px;
  margin: 0 3px;
  border-radius: 2px;
}
.name {
  flex: 1;
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fact {
  flex: none;
  color: var(--pencil);
  font-size: 14px;
}
.late {
  color: var(--madder);
}
</style>
