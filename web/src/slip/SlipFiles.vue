<script setup lang="ts">
import { useTemplateRef } from "vue";
import type { Attachment, Todo } from "@/server/client";
import { sizeWords, useAttach } from "@/server/attach";

/** The files of a to-do; pictures are shown. */
const props = defineProps<{ todo: Todo; fixed: boolean }>();
const { attach, detach } = useAttach();
const chooser = useTemplateRef("chooser");
const address = (f: Attachment) => `/api/todos/${props.todo.id}/attachments/${f.hash}`;

function chosen() {
  const files = [...(chooser.value?.files ?? [])];
  if (chooser.value) chooser.value.value = "";
  void attach(props.todo, files);
}
</script>

<template>
  <section class="files" aria-labelledby="files-label">
    <h2 id="files-label">Files</h2>
    <ul v-if="todo.attachments">
      <li v-for="f in todo.attachments" :key="f.hash">
        <a :href="address(f)" target="_blank" rel="noopener" class="file" :title="f.name">
          <img v-if="f.picture" :src="address(f)" :alt="f.name" loading="lazy" />
          <span class="name">{{ f.name }}</span>
          <span class="size">{{ sizeWords(f.size) }}</span>
        </a>
        <button
          v-if="!fixed"
          class="away"
          :aria-label="`Take away ${f.name}`"
          @click="detach(todo, f.hash)"
        >
          ×
        </button>
      </li>
    </ul>
    <template v-if="!fixed">
      <input ref="chooser" type="file" multiple hidden @change="chosen" />
      <button class="add" @click="chooser?.click()">Drop, paste or choose a file</button>
    </template>
  </section>
</template>

<style scoped>
.files {
  margin-top: 14px;
}
h2 {
  margin-bottom: 4px;
  font-size: 15px;
}
ul {
  margin-bottom: 6px;
  list-style: none;
}
li {
  display: flex;
  align-items: flex-start;
}
.file {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 2px 10px;
  min-width: 0;
  padding: 4px 0;
  color: var(--rim);
}
img {
  flex: 1 0 100%;
  max-width: 100%;
  max-height: 180px;
  object-fit: contain;
  object-position: left;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.size {
  color: var(--pencil);
}
.away {
  min-width: 28px;
  min-height: 28px;
  color: var(--pencil);
  cursor: pointer;
}
.add {
  width: 100%;
  min-height: 32px;
  padding: 0 10px;
  border: 1px dashed var(--tin);
  border-radius: var(--corner);
  color: var(--pencil);
  text-align: left;
  cursor: pointer;
}
.add:hover {
  border-color: var(--rim);
  color: var(--ink);
}
</style>
