<script setup lang="ts">
import { useVirtualizer } from "@tanstack/vue-virtual";
import { useEventListener, useMediaQuery } from "@vueuse/core";
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from "vue";
import type { Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { useLook } from "@/state/look";
import { printing } from "@/kit/printing";
import type { Shown, ShownGroup } from "./shown";
import { inForce } from "@/server/in-force";
import AddRow from "./AddRow.vue";
import TodoRow from "./TodoRow.vue";

/**
 * The rows of one group. Of many, only those in sight are in the page, and
 * `look` says which, so that they are read.
 */
const props = defineProps<{
  group: ShownGroup;
  overview: Overview;
  today: string;
  inList?: string;
  /** The row whose slip is open. */
  slip?: string;
  /** Rows can be moved among their siblings here. */
  arranges: boolean;
}>();
const emit = defineEmits<{ look: [from: number, to: number] }>();

const few = 120;
const many = computed(() => props.group.shown.length > few && !printing.value);
const narrow = useMediaQuery("(max-width: 760px)");
const current = useCurrent();
const look = useLook();
const list = useTemplateRef("list");
const margin = ref(0);

const sheet = () => document.querySelector<HTMLElement>("main.sheet");
function measure() {
  const box = sheet();
  if (!box || !list.value || !many.value) return;
  margin.value =
    list.value.getBoundingClientRect().top - box.getBoundingClientRect().top + box.scrollTop;
}
onMounted(measure);
watch(
  () => [props.group.start, props.group.shown.length],
  () => void nextTick(measure),
);
useEventListener("resize", measure);

/** Rows have a second line: why they stand here, an outcome, or what was found. */
const tall = computed(() => {
  const row = props.group.shown.find((s) => s.row)?.row;
  return Boolean(row && (row.found || row.moved || (row.why && look.reasons)));
});
const keyOf = (i: number) => props.group.shown[i]?.row?.todo.id ?? `row ${i}`;
const virtualizer = useVirtualizer(
  computed(() => ({
    count: many.value ? props.group.shown.length : 0,
    getScrollElement: sheet,
    estimateSize: () => (narrow.value ? 66 : tall.value ? 53 : inForce.rows === "close" ? 33 : 41),
    overscan: 8,
    scrollMargin: margin.value,
    getItemKey: keyOf,
  })),
);
const items = computed(() => virtualizer.value.getVirtualItems());
/** What is in the page: all rows of few, those in sight of many. */
const inPage = computed<{ index: number; shown: Shown }[]>(() =>
  many.value
    ? items.value.flatMap((i) => {
        const shown = props.group.shown[i.index];
        return shown ? [{ index: i.index, shown }] : [];
      })
    : props.group.shown.map((shown, index) => ({ index, shown })),
);
const above = computed(() => (many.value ? (items.value[0]?.start ?? 0) - margin.value : 0));
const below = computed(() =>
  many.value
    ? virtualizer.value.getTotalSize() - ((items.value.at(-1)?.end ?? 0) - margin.value)
    : 0,
);

watch(
  inPage,
  (now) => {
    const first = now[0]?.shown;
    const last = now.at(-1)?.shown;
    if (many.value && first && last) emit("look", first.at, last.at);
  },
  { immediate: true },
);

// A row that the keys go to may be out of the page.
watch(
  () => current.row,
  (id) => {
    if (!many.value) return;
    const index = props.group.shown.findIndex((s) => s.row?.todo.id === id);
    if (index >= 0 && !inPage.value.some((p) => p.index === index))
      virtualizer.value.scrollToIndex(index);
  },
  { flush: "sync" },
);
</script>

<template>
  <ul
    ref="list"
    :class="{ tall }"
    :style="{ paddingTop: `${above}px`, paddingBottom: `${below}px` }"
  >
    <template v-for="{ index, shown } in inPage" :key="shown.row?.todo.id ?? `row ${index}`">
      <TodoRow
        v-if="shown.row"
        :row="shown.row"
        :folds="shown.folds"
        :ends="(group.shown[index + 1]?.row?.depth ?? 0) < (shown.row.depth ?? 0)"
        :group="group"
        :overview="overview"
        :today="today"
        :in-list="inList"
        :open="slip === shown.row.todo.id"
        :arranges="arranges"
      />
      <AddRow
        v-if="shown.row && current.adding?.row === shown.row.todo.id"
        :key="`add ${shown.row.todo.id} ${current.adding.inside}`"
        :row="shown.row"
        :inside="current.adding.inside"
      />
      <li v-if="!shown.row" class="ghost" aria-hidden="true"><span /></li>
    </template>
  </ul>
</template>

<style scoped>
ul {
  padding: 0;
  list-style: none;
}
.tall > :deep(.row) {
  min-height: 52px;
}
.ghost {
  display: flex;
  align-items: center;
  height: 41px;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
}
.ghost span {
  width: 40%;
  height: 10px;
  border-radius: var(--corner);
  background: var(--tin);
  opacity: 0.5;
}
</style>
