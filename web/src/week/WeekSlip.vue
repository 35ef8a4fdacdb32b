<script setup lang="ts">
import { computed, inject, onBeforeUnmount, onMounted, ref, useTemplateRef } from "vue";
import type { Overview } from "@/server/client";
import type { WeekSlip } from "@/server/week";
import { useLinger } from "@/server/linger";
import { carry } from "@/state/carry";
import { useTouchLift } from "@/state/touch-lift";
import { shortMoment } from "@/words/dates";
import { estimateWords } from "@/words/fields";
import { markOf } from "./marks";
import { tabStop } from "./week-keys";

/** A to-do as a slip of paper: in a cup as high as its minutes, or among what is to place. */
const props = defineProps<{
  slip: WeekSlip;
  overview: Overview;
  today: string;
  /** It stands above the rim. */
  over?: boolean;
  /** It is only proposed to lie here. */
  proposed?: boolean;
  done?: boolean;
  /** It is a name in a saucer, and no paper. */
  plain?: boolean;
  /** Its minutes are said, where its height does not say them. */
  told?: boolean;
  /** How high it is, in pixels; as high as its words need where that is not said. */
  height?: number;
}>();
defineEmits<{ open: [] }>();
const root = useTemplateRef<HTMLElement>("root");
const linger = useLinger();
const stop = inject(tabStop);
const dragged = ref(false);
const moves = () => !props.done && !props.proposed;
const { lifted } = useTouchLift(root, { todo: () => props.slip.todo, lift: moves });
let end = () => {};
onMounted(() => {
  if (root.value && moves())
    end = carry(
      root.value,
      () => props.slip.todo,
      () => true,
      dragged,
    );
});
/** What was just ticked stays while the pointer or the focus is on it. */
const hold = (on: boolean) => linger.hold(on ? props.slip.todo.id : undefined);
onBeforeUnmount(() => {
  end();
  if (linger.kept.has(props.slip.todo.id)) hold(false);
});

const todo = computed(() => props.slip.todo);
const minutes = computed(() => {
  if (!props.slip.minutes) return "";
  return estimateWords(props.slip.minutes) + (props.slip.assumed ? "?" : "");
});
const time = computed(() =>
  props.told ? "" : (/T(\d\d:\d\d)/.exec(todo.value.plan ?? "")?.[1] ?? ""),
);
const due = computed(() =>
  todo.value.due ? `due ${shortMoment(todo.value.due, props.today)}` : "",
);
const mark = computed(() =>
  props.proposed || props.plain ? undefined : markOf(todo.value, props.overview),
);
const under = computed(() => (props.slip.under ? `lies under “${props.slip.under}”` : ""));
/** As many whole lines of its title as it has room for; in a low one the one line is small. */
const lines = computed(() => {
  const inner = (props.height ?? 0) - 2;
  if (!props.height) return undefined;
  if (inner >= 17) return { maxHeight: `${Math.floor(inner / 17) * 17}px` };
  return {
    maxHeight: `${inner}px`,
    lineHeight: `${inner}px`,
    fontSize: `${Math.min(13, inner)}px`,
  };
});
const said = computed(() =>
  [
    todo.value.title,
    minutes.value.replace("?", " assumed"),
    time.value && `at ${time.value}`,
    due.value,
    under.value,
    props.over && "over the rim",
    props.proposed && "proposed",
    props.done && "done",
  ]
    .filter(Boolean)
    .join(", "),
);
</script>

<template>
  <button
    ref="root"
    class="slip"
    :class="{
      over: over || under,
      proposed,
      plain,
      dragged: dragged || lifted,
      assumed: slip.assumed,
      struck: done || linger.struck(todo),
    }"
    :style="height ? { height: `${height}px` } : undefined"
    :tabindex="proposed || done || stop === todo.id ? 0 : -1"
    :data-todo="proposed ? undefined : todo.id"
    :data-proposal="proposed ? todo.id : undefined"
    :aria-label="said"
    :title="[todo.title, minutes, due, under].filter(Boolean).join(', ')"
    @pointerenter="hold(true)"
    @pointerleave="hold(false)"
    @focus="hold(true)"
    @blur="hold(false)"
    @click="$emit('open')"
  >
    <span class="words" :style="lines">
      <span class="title" :style="mark"
        ><span v-if="time" class="at">{{ time }}</span
        >{{ time ? ` ${todo.title}` : todo.title }}</span
      >
    </span>
    <span v-if="told && (minutes || due)" class="minutes">{{
      [minutes, due].filter(Boolean).join(", ")
    }}</span>
  </button>
</template>

<style scoped>
/* A time is one word, however narrow the slip. */
.at {
  white-space: nowrap;
}
.slip {
  position: relative;
  display: flex;
  flex: none;
  align-items: flex-start;
  width: 100%;
  min-width: 0;
  padding: 0 6px;
  overflow: hidden;
  border: 1px solid var(--tin);
  background: var(--glaze);
  /* One corner is clipped, as of the slips in the cup's mark. */
  clip-path: polygon(0 0, calc(100% - 7px) 0, 100% 7px, 100% 100%, 0 100%);
  color: var(--ink);
  font-size: 13px;
  line-height: 17px;
  text-align: left;
  cursor: pointer;
}
.words {
  overflow: hidden;
}
.title {
  overflow-wrap: anywhere;
  text-decoration: underline transparent 2px;
  text-underline-offset: 2px;
}
.assumed {
  border-style: dotted;
  border-color: var(--pencil);
}
.assumed .title::after {
  content: " ?";
  color: var(--pencil);
}
.over {
  border-color: var(--copper);
}
.proposed {
  border: 1px dashed var(--copper);
  background: none;
  color: var(--copper);
  clip-path: none;
}
.struck,
.struck .title {
  color: var(--pencil);
  text-decoration: line-through;
}
.dragged {
  opacity: 0.4;
}
.plain {
  border: 0;
  background: none;
  clip-path: none;
  font-weight: 600;
  text-align: center;
  white-space: nowrap;
}
.plain .words {
  flex: 1;
  text-overflow: ellipsis;
}
.plain.assumed .title::after {
  font-weight: 400;
}
.minutes {
  margin-left: 8px;
  color: var(--pencil);
  white-space: nowrap;
}
.slip:hover {
  background: var(--wash);
}
.slip:focus-visible {
  z-index: 1;
  clip-path: none;
}
</style>
