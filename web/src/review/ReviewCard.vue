<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from "vue";
import type { Overview, Row } from "@/server/client";
import SentenceLine from "@/capture/SentenceLine.vue";
import { rowFacts } from "@/words/row";
import { type Act, actKeys, actName, type StepKind, steps } from "@/words/review";

/** The one to-do that is asked about, large, with the few acts that fit and their keys. */
const props = defineProps<{
  row: Row;
  step: StepKind;
  overview: Overview;
  /** Its next action is being written. */
  writing: boolean;
}>();
const emit = defineEmits<{ act: [act: Act, at: HTMLElement]; open: []; written: [put: boolean] }>();
const root = useTemplateRef("root");
const todo = computed(() => props.row.todo);
const asks = computed(() => steps[props.step]?.asks(todo.value, props.overview.today) ?? "");
const facts = computed(() =>
  rowFacts(props.row, {
    group: { kind: props.step, horizon: null },
    overview: props.overview,
    today: props.overview.today,
  }),
);
watch(
  () => props.writing,
  async (writing) => {
    await nextTick();
    if (!writing) root.value?.focus();
  },
);
</script>

<template>
  <article ref="root" class="card" tabindex="-1" :data-todo="todo.id">
    <p class="asks">{{ asks }}</p>
    <p v-if="row.path?.length" class="path">{{ row.path.join(" › ") }}</p>
    <h2>
      <button class="title" title="Open its slip (Enter)" @click="emit('open')">
        {{ todo.title }}
      </button>
    </h2>
    <p class="facts">
      <span v-for="(f, i) in facts" :key="i" :class="f.tone">{{ f.text }}</span>
      <span v-for="t in todo.tags" :key="t">{{ t }}</span>
    </p>
    <SentenceLine
      v-if="writing"
      :line="`next-${todo.id}`"
      label="What comes next"
      placeholder="What comes next: Ask the joiner, by Friday"
      :into="{ parent: todo.id }"
      says="nothing more"
      now
      @put="emit('written', true)"
      @leave="emit('written', false)"
    />
    <div v-else class="acts">
      <button
        v-for="act in steps[step]?.acts ?? []"
        :key="act"
        class="btn"
        :class="{ quiet: act === 'leave' }"
        @click="emit('act', act, $event.currentTarget as HTMLElement)"
      >
        {{ actName(step, act) }} <kbd class="key">{{ actKeys[act].key }}</kbd>
      </button>
    </div>
  </article>
</template>

<style scoped>
.card {
  position: relative;
  padding: 20px 24px 22px;
  border: 1px solid var(--tin);
  background: var(--glaze);
  /* A slip of paper, as everywhere. */
  clip-path: polygon(0 0, calc(100% - 16px) 0, 100% 16px, 100% 100%, 0 100%);
}
.card::after {
  position: absolute;
  top: -1px;
  right: -1px;
  width: 17px;
  height: 17px;
  background: linear-gradient(to top right, transparent 47%, var(--tin) 47% 53%, transparent 53%);
  content: "";
}
.card:focus {
  outline: none;
}
.asks {
  color: var(--copper);
}
.path {
  padding-top: 8px;
  color: var(--pencil);
  font-size: 14px;
}
h2 {
  padding: 8px 0 4px;
  font-family: var(--slab);
  font-size: 24px;
  line-height: 32px;
}
.title {
  max-width: 100%;
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}
.title:hover {
  text-decoration: underline;
  text-decoration-color: var(--tin);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  min-height: 24px;
  color: var(--pencil);
}
.late {
  color: var(--madder);
}
.acts,
.next {
  padding-top: 18px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.key {
  padding: 0 5px;
  border: 1px solid var(--tin);
  border-radius: 4px;
  color: var(--pencil);
  font: inherit;
  font-size: 12px;
  font-weight: 400;
}
@media (hover: none) {
  .key {
    display: none;
  }
}
</style>
