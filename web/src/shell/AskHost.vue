<script setup lang="ts">
import { nextTick, onMounted, ref, useTemplateRef } from "vue";
import { Away } from "@/server/client";
import { type Question, useAsk } from "@/kit/ask";
import { colours } from "@/words/names";
import DateWords from "@/choosers/DateWords.vue";
import LayerDialog from "@/kit/LayerDialog.vue";

/** The dialog that asks a few things before something is done. */
const props = defineProps<{ question: Question }>();
const asking = useAsk();
const dialog = useTemplateRef("dialog");
const form = useTemplateRef("form");
const dates = ref<{ settle: () => Promise<boolean> }[]>();
const answers = ref<Record<string, string>>(
  Object.fromEntries(props.question.fields.map((f) => [f.key, f.value])),
);
const reason = ref("");
const busy = ref(false);

onMounted(async () => {
  await nextTick(); // it is there, and open
  const first = form.value?.querySelector<HTMLInputElement>("input, textarea, select");
  first?.focus();
  const untouched = first?.value === props.question.fields[0]?.value; // nobody has typed ahead
  if (untouched && first instanceof HTMLInputElement && first.type === "text") first.select();
});

function end() {
  asking.question = undefined;
  props.question.refused?.();
}

async function go() {
  if (busy.value) return;
  busy.value = true;
  try {
    const understood = await Promise.all(dates.value?.map((d) => d.settle()) ?? []);
    if (understood.includes(false))
      throw new Error("The date is not understood. Say it like Friday, 30 Nov or next week.");
    await props.question.act(answers.value);
    dialog.value?.close();
  } catch (e) {
    reason.value =
      e instanceof Away
        ? "The server is away. Nothing was changed."
        : e instanceof Error
          ? e.message
          : "It could not be done.";
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="ask"
    class="ask"
    labelledby="ask-title"
    @close="end"
    @keydown.self.enter="go"
  >
    <form ref="form" @submit.prevent="go">
      <h1 id="ask-title">{{ question.title }}</h1>
      <p v-if="question.text" class="text">{{ question.text }}</p>
      <div v-for="f in question.fields" :key="f.key" class="field">
        <label :for="`ask-${f.key}`">{{ f.label }}</label>
        <textarea
          v-if="f.kind === 'lines'"
          :id="`ask-${f.key}`"
          v-model="answers[f.key]"
          rows="3"
        />
        <DateWords
          v-else-if="f.kind === 'date'"
          :id="`ask-${f.key}`"
          ref="dates"
          submits
          :model-value="answers[f.key] ?? ''"
          :label="f.label"
          @update:model-value="(d) => (answers[f.key] = d)"
        />
        <select
          v-else-if="f.kind === 'choice'"
          :id="`ask-${f.key}`"
          v-model="answers[f.key]"
          @keydown.enter.prevent="go"
        >
          <option v-for="o in f.options" :key="o.value" :value="o.value">{{ o.name }}</option>
        </select>
        <div
          v-else-if="f.kind === 'colour'"
          class="colours"
          role="radiogroup"
          :aria-label="f.label"
        >
          <button
            v-for="c in colours"
            :key="c"
            type="button"
            class="colour"
            role="radio"
            :aria-checked="answers[f.key] === c"
            @click="answers[f.key] = c"
          >
            <span class="dot" :style="{ background: `var(--${c})` }" />{{ c }}
          </button>
        </div>
        <input
          v-else
          :id="`ask-${f.key}`"
          v-model="answers[f.key]"
          type="text"
          autocomplete="off"
        />
        <p v-if="f.hint" class="hint">{{ f.hint }}</p>
      </div>
      <p v-if="reason" class="reason" role="alert">{{ reason }}</p>
      <footer>
        <button type="button" class="btn quiet" @click="dialog?.close()">Cancel</button>
        <button type="submit" class="btn main" :disabled="busy">{{ question.confirm }}</button>
      </footer>
    </form>
  </LayerDialog>
</template>

<style scoped>
.ask {
  width: min(440px, calc(100vw - 24px));
  overflow-y: auto;
}
h1 {
  font-size: 19px;
  line-height: 26px;
}
.text,
.hint {
  color: var(--pencil);
  font-size: 14px;
}
.field {
  margin-top: 12px;
}
label {
  display: block;
  margin-bottom: 2px;
  font-weight: 600;
  font-size: 14px;
}
.field input,
textarea,
select {
  width: 100%;
  min-height: 34px;
  padding: 4px 10px;
  border: 1px solid var(--pencil);
  border-radius: var(--corner);
  background: var(--glaze);
}
textarea {
  resize: vertical;
}
.colours {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
}
.colour {
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: 30px;
  padding: 0 8px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  cursor: pointer;
}
.colour[aria-checked="true"] {
  border-color: var(--rim);
  background: var(--wash);
  font-weight: 600;
}
.dot {
  width: 10px;
  height: 10px;
  border-radius: 2px;
}
.reason {
  margin-top: 10px;
  color: var(--madder);
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 18px;
}
</style>
