<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from "vue";
import { client, type Overview, send, type Todo } from "@/api/client";
import { useActions } from "@/composables/actions";

const props = defineProps<{ overview: Overview; todo: Todo }>();
const emit = defineEmits<{ done: [] }>();
const actions = useActions();
const query = ref("");
const at = ref(0);
const input = useTemplateRef("input");
const options = useTemplateRef("options");
onMounted(() => {
  input.value?.focus();
  // Enter alone changes nothing.
  at.value = Math.max(
    found.value.findIndex((o) => o.list !== undefined && o.list === props.todo.list),
    0,
  );
});

interface Option {
  key: string;
  name: string;
  shelf?: string;
  colour?: string;
  list?: string | null;
  make?: string;
}

const found = computed<Option[]>(() => {
  const wanted = query.value.trim().toLowerCase();
  const all: Option[] = [{ key: "cup", name: "The Cup", list: null }];
  for (const shelf of props.overview.shelves) {
    for (const l of shelf.lists) {
      all.push({ key: l.id, name: l.name, shelf: shelf.name, colour: l.colour, list: l.id });
    }
  }
  const hits = all.filter((o) => o.name.toLowerCase().includes(wanted));
  if (wanted && !all.some((o) => o.name.toLowerCase() === wanted)) {
    hits.push({
      key: "make",
      name: `Make the list “${query.value.trim()}”`,
      make: query.value.trim(),
    });
  }
  return hits;
});

function step(by: number) {
  at.value = (at.value + by + found.value.length) % found.value.length;
  options.value?.children[at.value]?.scrollIntoView({ block: "nearest" });
}

async function pick(option: Option | undefined) {
  if (!option) return;
  emit("done");
  let list = option.list ?? null;
  const name = option.make;
  if (name) {
    const made = await actions.attempt(() =>
      send((header) => client.POST("/api/lists", { params: { header }, body: { name } })),
    );
    if (!made) return;
    list = made.id;
  }
  if (list !== props.todo.list) await actions.move(props.todo, list);
}
</script>

<template>
  <div class="chooser">
    <input
      ref="input"
      v-model="query"
      role="combobox"
      aria-label="List"
      aria-controls="list-options"
      aria-expanded="true"
      :aria-activedescendant="`list-option-${at}`"
      placeholder="Name of a list"
      autocomplete="off"
      @input="at = 0"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
      @keydown.enter.prevent="pick(found[at])"
    />
    <ul id="list-options" ref="options" role="listbox" aria-label="Lists">
      <li
        v-for="(o, i) in found"
        :id="`list-option-${i}`"
        :key="o.key"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @pointermove="at = i"
        @click="pick(o)"
      >
        <span v-if="o.colour" class="dot" :style="{ background: `var(--${o.colour})` }" />
        <span class="name">{{ o.name }}</span>
        <span v-if="o.list !== undefined && o.list === todo.list" class="shelf">here now</span>
        <span v-else class="shelf">{{ o.shelf }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.chooser {
  width: 300px;
  padding: 8px;
}
input {
  width: 100%;
  height: 34px;
  padding: 0 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
ul {
  max-height: 300px;
  margin-top: 6px;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 30px;
  padding: 0 8px;
  border-radius: var(--corner);
  cursor: pointer;
}
li.at {
  background: var(--wash);
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 2px;
}
.name {
  flex: 1;
}
.shelf {
  color: var(--pencil);
  font-size: 13px;
}
</style>
