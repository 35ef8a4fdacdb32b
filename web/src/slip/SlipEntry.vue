<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from "vue";
import type { Todo } from "@/server/client";
import { useSaid } from "@/server/said";
import { useActions } from "@/server/actions";

/** A value of a slip that is typed as the capture line takes it, and read while it is typed. */
const props = defineProps<{
  field: "estimate" | "reminder";
  todo: Todo;
  value: string;
  none: string;
  example: string;
  disabled: boolean;
}>();
const actions = useActions();
const typing = ref(false);
const text = ref("");
const words = computed(() => text.value.trim().replace(/^remind( me)?\s+/i, ""));
const { found, reason, read } = useSaid(() => props.field, words);
const input = useTemplateRef("input");
const button = useTemplateRef("button");

async function begin() {
  typing.value = true;
  text.value = props.value;
  await nextTick();
  input.value?.select();
}
async function end() {
  typing.value = false;
  await nextTick();
  button.value?.focus();
}

/** What is typed is kept once: the line is blurred as it goes. */
let keeping = false;
async function keep() {
  if (keeping || !typing.value) return;
  keeping = true;
  try {
    await keepOnce();
  } finally {
    keeping = false;
  }
}
async function keepOnce() {
  const said = text.value.trim();
  if (said === props.value || (said === "" && props.field === "reminder")) return end();
  if (said === "") {
    await end();
    return actions.edit(props.todo, { estimate: null });
  }
  const meant = await read();
  if (!meant) return;
  await end();
  if (props.field === "reminder") return actions.remind(props.todo, [meant.value], []);
  await actions.edit(props.todo, { estimate: Number(meant.value) });
}
function enter(e: KeyboardEvent) {
  if (e.isComposing) return;
  e.preventDefault();
  void keep();
}
</script>

<template>
  <button
    v-if="!typing"
    ref="button"
    class="value"
    :class="{ none: !value }"
    :disabled="disabled"
    @click="begin"
  >
    {{ value || none }}
  </button>
  <template v-else>
    <input
      ref="input"
      v-model="text"
      :aria-label="field === 'estimate' ? 'How long it takes' : 'When to remind'"
      :placeholder="example"
      :aria-invalid="reason !== ''"
      autocomplete="off"
      @keydown.enter="enter"
      @keydown.esc.stop.prevent="end"
      @blur="!reason && keep()"
    />
    <p v-if="reason" class="wrong" role="alert">{{ reason }}</p>
    <p v-else-if="found && text.trim() !== value" class="found" role="status">
      {{ found.words }} <span class="key">Enter</span>
    </p>
  </template>
</template>

<style scoped>
input {
  width: 100%;
  height: 28px;
  margin-left: -8px;
  padding: 0 7px;
  border: 1px solid var(--rim);
  border-radius: var(--corner);
  background: var(--glaze);
}
p {
  font-size: 14px;
}
.found {
  font-weight: 600;
}
.wrong {
  color: var(--madder);
}
</style>
