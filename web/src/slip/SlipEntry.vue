<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from "vue";
import { ask, client, Refused, type Todo } from "@/server/client";
import { useActions } from "@/server/actions";

/** A value of a slip that is typed as the capture line takes it. */
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
const reason = ref("");
const input = useTemplateRef("input");
const button = useTemplateRef("button");

async function begin() {
  typing.value = true;
  text.value = props.value;
  reason.value = "";
  await nextTick();
  input.value?.select();
}
async function end() {
  typing.value = false;
  await nextTick();
  button.value?.focus();
}

/** What is refused is said beside what was typed, for as long as that is there to be mended. */
async function answered<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (e) {
    if (!(e instanceof Refused)) actions.trouble(e);
    else reason.value = e.message;
    return undefined;
  }
}

async function keep() {
  const said = text.value.trim();
  if (said === props.value) return end();
  if (said === "" && props.field === "estimate") {
    await end();
    return actions.edit(props.todo, { estimate: null });
  }
  if (said === "") return end();
  if (props.field === "reminder") {
    const read = await answered(() =>
      ask(() =>
        client.POST("/api/when", {
          body: { field: "reminder", text: said.replace(/^remind( me)?\s+/i, "") },
        }),
      ),
    );
    if (!read) return;
    await end();
    return actions.remind(props.todo, [read.value], []);
  }
  const reading = await answered(() =>
    ask(() => client.POST("/api/sentence", { body: { text: `x, ${said}` } })),
  );
  if (!reading) return;
  if (reading.problems[0]) reason.value = reading.problems[0].reason;
  else if (reading.estimate) {
    await end();
    await actions.edit(props.todo, { estimate: reading.estimate });
  } else reason.value = `Say it like ${props.example}.`;
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
      @keydown.enter.prevent="keep"
      @keydown.esc.stop.prevent="end"
      @blur="!reason && keep()"
    />
    <p v-if="reason" role="alert">{{ reason }}</p>
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
  color: var(--madder);
  font-size: 14px;
}
</style>
