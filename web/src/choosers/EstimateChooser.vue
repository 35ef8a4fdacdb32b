<script setup lang="ts">
import { computed, ref } from "vue";
import type { Todo } from "@/server/client";
import { estimateWords, minutesOf } from "@/words/fields";
import OptionFinder from "@/kit/OptionFinder.vue";
import { useSlack } from "@/server/slack";
import SlackLine from "./SlackLine.vue";

/** Says how long something takes: one of the usual lengths, or what is typed. */
const props = defineProps<{
  todo?: Todo;
  /** Where a walk is that gives minutes to row after row: "2 of 12". */
  walk?: string;
}>();
const emit = defineEmits<{ choose: [minutes: number | null]; skip: [] }>();
const query = ref("");
const usual = [5, 10, 15, 20, 30, 45, 60, 90, 120, 180, 240, 480];

type Option = { key: string; minutes: number | null; words: string };
const options = computed(() => {
  const typed = minutesOf(query.value);
  if (typed) return [{ key: "typed", minutes: typed, words: estimateWords(typed) }];
  if (query.value.trim()) return [];
  const all: Option[] = usual.map((m) => ({ key: String(m), minutes: m, words: estimateWords(m) }));
  // It begins where the to-do is, so that Enter alone changes nothing.
  const none = { key: "none", minutes: null, words: "No estimate" };
  if (props.walk) all.unshift({ key: "skip", minutes: null, words: "Not now: the next one" });
  else if (props.todo) all.unshift(none);
  else all.push(none); // of many, which are of no one mind
  return all;
});
const begin = computed(() => {
  if (!props.todo) return -1;
  const { estimate } = props.todo;
  return Math.max(
    0,
    options.value.findIndex((o) => o.minutes !== null && o.minutes === estimate),
  );
});
/** The minutes that Enter would give. */
const near = ref<number | null>();
const slack = useSlack(() => props.todo, undefined, near);
const dated = computed(() => Boolean(props.todo?.due || props.todo?.parent));

function pick(option: Option) {
  if (option.key === "skip") emit("skip");
  else emit("choose", option.minutes);
}
</script>

<template>
  <p v-if="walk && todo" class="walk">
    <strong>{{ todo.title }}</strong> <span>{{ walk }}</span>
  </p>
  <OptionFinder
    v-model="query"
    what="Minutes"
    placeholder="How long: 20, 1h30"
    :options="options"
    :begin="begin"
    :chosen="(o) => o.minutes !== null && o.minutes === todo?.estimate"
    @pick="pick"
    @look="(o) => (near = o?.minutes)"
  >
    <template #default="{ option }">{{ option.words }}</template>
  </OptionFinder>
  <SlackLine v-if="dated" class="room" :slack="slack" />
</template>

<style scoped>
.room {
  max-width: 300px;
  padding-bottom: 8px;
}
.walk {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  max-width: 300px;
  padding: 8px 12px 0;
  font-size: 14px;
}
.walk span {
  color: var(--pencil);
  white-space: nowrap;
}
</style>
