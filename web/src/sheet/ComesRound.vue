<script setup lang="ts">
import { ref } from "vue";

/** What comes round on a day, folded into one line: not yet a row, and not counted. */
defineProps<{ todos: { id: string; title: string }[] }>();
defineEmits<{ open: [id: string] }>();
const shown = ref(false);
</script>

<template>
  <div class="round">
    <button class="line" :aria-expanded="shown" @click="shown = !shown">
      comes round: {{ todos.length }}
      <span v-if="!shown" class="titles">{{ todos.map((t) => t.title).join(" · ") }}</span>
    </button>
    <ul v-if="shown">
      <li v-for="t in todos" :key="t.id">
        <button class="line" @click="$emit('open', t.id)">{{ t.title }}</button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.round {
  padding: 2px 8px 2px 28px;
  color: var(--pencil);
  font-size: 14px;
}
.line {
  max-width: 100%;
  min-height: 28px;
  padding: 2px 4px;
  overflow: hidden;
  border-radius: var(--corner);
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.line:hover {
  background: var(--wash);
}
.titles {
  margin-left: 8px;
}
ul {
  padding-left: 16px;
  list-style: none;
}
</style>
