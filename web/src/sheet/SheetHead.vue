<script setup lang="ts">
import PathIcon from "@/kit/PathIcon.vue";
import { type MenuItem, useMenu } from "@/kit/menu";
import { mdiDotsHorizontal } from "@mdi/js";
import { computed, useTemplateRef } from "vue";
import { useRoute } from "vue-router";
import type { List, Overview, OwnView, Person, Shelf, Tag } from "@/server/client";
import { groupings } from "@/words/questions";
import { viewIcons } from "@/words/view-icons";
import type { Shape } from "./narrowing";
import { useLook } from "@/state/look";
import { exportHref, fileFormats } from "@/server/files";
import { useAsk } from "@/kit/ask";
import { useArrangement } from "@/server/arrangement";
import { type Deed, useSheetDeeds } from "./sheet-deeds";
import { useSheetItems } from "./sheet-items";
import { useDayEvents } from "./day-events";
import ActionMenu from "@/kit/ActionMenu.vue";
import EventsButton from "./EventsButton.vue";

/** A sheet's name, what it holds in a sentence, and what can be done with it. */

const props = defineProps<{
  name: string;
  sentence?: string;
  /** Whether the day still holds its work. */
  holds?: string;
  /** The events of the day that the sheet is of. */
  events?: { day: string; words: string };
  total: string;
  overview?: Overview;
  list?: List;
  shelf?: Shelf;
  tag?: Tag;
  person?: Person;
  own?: OwnView;
  shape: Shape;
  /** What the columns stand for, where the sheet was asked for some. */
  by?: string;
  /** Its rows have dates that can be moved all at once. */
  makesRoom: boolean;
  /** It can be narrowed, and shown in other shapes. */
  narrows: boolean;
  /** The filter that it is narrowed by. */
  narrowed?: string;
  /** A phone's width. */
  narrow: boolean;
  /** It has rows to choose among. */
  chooses: boolean;
}>();
const emit = defineEmits<{
  makeRoom: [];
  narrow: [at: HTMLElement];
  shape: [to: Shape, by?: string];
  print: [columns: 1 | 2];
  minutes: [];
}>();
const route = useRoute();
const look = useLook();

const arrangement = useArrangement();
const { ask } = useAsk();
const menus = useMenu();

/** What can be saved as a file: a list, or a view. */
const fileItems = computed<MenuItem[]>(() => {
  const what: Record<string, string> = props.list
    ? { list: props.list.id }
    : props.own
      ? { own: props.own.id }
      : typeof route.params.view === "string" && route.params.view !== "bin"
        ? { view: route.params.view }
        : {};
  if (!Object.keys(what).length) return [];
  if (props.narrowed) what.narrow = props.narrowed;
  const formats = fileFormats.map((f) => ({
    name: `Save as ${f.says}`,
    act: () => location.assign(exportHref(f.name, what)),
  }));
  return [{ name: "Save as a file…", act: () => menus.further("Save as", formats) }];
});
const items = useSheetItems(props);
const printItems: MenuItem[] = [
  { name: "Give minutes, row after row…", act: () => emit("minutes"), apart: true },
  { name: "Print", act: () => emit("print", 1), apart: true },
  { name: "Print in two columns", act: () => emit("print", 2) },
];
/** On a phone all that can be done stands in one button. */
const allItems = computed<MenuItem[]>(() => {
  const own = [...items.value, ...printItems, ...fileItems.value];
  if (!props.narrow) return own;
  const entries = deeds.value.map((d): MenuItem => ({
    name: d.menu ? `${d.menu.label}…` : d.name,
    act: () => press(d),
  }));
  const { events } = props;
  if (events)
    entries.push({
      name: "Events…",
      act: () => press({ name: "", act: (at) => void openEvents(events.day, at) }),
    });
  return [...entries, ...own.map((item, i) => (i === 0 ? { ...item, apart: true } : item))];
});
const openEvents = useDayEvents();
const dots = useTemplateRef<{ $el: HTMLElement }>("dots");
/** What it opens hangs on the button of the menu that it was chosen from. */
function press({ menu, act }: Deed) {
  const at = dots.value?.$el;
  if (!at) return;
  if (menu) menus.menu = { label: menu.label, items: menu.items(), at };
  else act?.(at);
}
function askUrgent() {
  ask({
    title: "How near is urgent?",
    text: "What is due or planned within so many days stands on the urgent side.",
    confirm: "Set it",
    fields: [
      { key: "days", label: "Days from today", kind: "text", value: String(look.urgentDays) },
    ],
    act: async ({ days }) => {
      const n = Number(days);
      if (!Number.isInteger(n) || n < 1 || n > 60)
        throw new Error("A whole number of days from 1 to 60 is wanted.");
      look.setUrgentDays(n);
    },
  });
}
/** The shapes a sheet may have, and what columns may stand for. */
const shapeItems = computed<MenuItem[]>(() => [
  { name: "Rows", checked: props.shape === "rows", act: () => emit("shape", "rows") },
  {
    name: "Two-by-two: important and urgent",
    checked: props.shape === "two-by-two",
    act: () => emit("shape", "two-by-two"),
  },
  ...(props.shape === "two-by-two" && props.own?.shape !== "two-by-two"
    ? [{ name: `Urgent is within ${look.urgentDays} days…`, act: askUrgent }]
    : []),
  ...groupings.slice(1).map((g, i) => ({
    name: `Columns by ${g.name}`,
    checked: props.shape === "columns" && (props.by ?? "priority") === g.value,
    act: () => emit("shape", "columns", g.value),
    apart: i === 0,
  })),
]);
const shapeName = computed(
  () => ({ rows: "As rows", columns: "As columns", "two-by-two": "As a two-by-two" })[props.shape],
);
const deeds = useSheetDeeds(props, {
  makeRoom: () => emit("makeRoom"),
  narrow: (at) => emit("narrow", at),
  shapeName: () => shapeName.value,
  shapes: () => shapeItems.value,
});
</script>

<template>
  <header class="top">
    <div class="words">
      <h1>
        <span
          v-if="list || tag"
          class="dot"
          :style="{ background: `var(--${(list ?? tag)?.colour})` }"
        /><PathIcon
          v-if="own"
          class="own"
          :path="viewIcons[own.icon]"
          :size="20"
          :style="{ color: `var(--${own.colour})` }"
        />{{ name }}
      </h1>
      <p v-if="sentence" class="sentence">
        {{ sentence }} <span v-if="total" class="total">{{ total }}.</span>
      </p>
      <p v-if="holds" class="sentence holds">{{ holds }}</p>
      <p v-if="list?.outcome" class="sentence holds">Then: {{ list.outcome }}</p>
      <EventsButton
        v-if="events && !narrow"
        class="happens"
        :day="events.day"
        :words="events.words"
      />
    </div>
    <div class="deeds">
      <button
        v-if="list?.template && overview"
        class="btn main"
        @click="arrangement.pour(list, overview)"
      >
        Pour it out…
      </button>
      <button
        v-if="list?.archived"
        class="btn main"
        @click="arrangement.editList(list, { archived: false })"
      >
        Bring it back
      </button>
      <template v-for="d in narrow ? [] : deeds" :key="d.menu?.label ?? d.name">
        <ActionMenu v-if="d.menu" class="btn" :label="d.menu.label" :items="d.menu.items">
          {{ d.name }}
        </ActionMenu>
        <button
          v-else
          class="btn"
          :title="d.title"
          :aria-pressed="d.pressed"
          :aria-haspopup="d.popup ? 'dialog' : undefined"
          :data-narrow="d.narrows ? '' : undefined"
          @click="d.act?.($event.currentTarget as HTMLElement)"
        >
          {{ d.name }}
        </button>
      </template>
      <ActionMenu
        ref="dots"
        class="btn dots"
        :data-narrow="narrow ? '' : undefined"
        :label="`More for ${name}`"
        :items="() => allItems"
      >
        <PathIcon :path="mdiDotsHorizontal" :size="18" />
      </ActionMenu>
    </div>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  margin-bottom: 6px;
  padding-right: 8px;
}
.words {
  display: flex;
  flex: 1 1 300px;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
  min-width: 0;
}
h1 {
  max-width: 100%;
  font-size: 24px;
  font-weight: 600;
  line-height: 32px;
  overflow-wrap: anywhere;
}
.dot {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 9px;
  border-radius: 2px;
}
.own {
  margin-right: 9px;
  vertical-align: -2px;
}
.sentence {
  color: var(--pencil);
}
.happens {
  flex-basis: 100%;
}
.holds {
  flex-basis: 100%;
}
.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.btn[aria-pressed="true"] {
  background: var(--rim);
  color: var(--glaze);
}
.dots {
  padding: 2px 7px;
}
/* A phone's first row stands high: one line, and one button for all that can be done. */
@media (max-width: 760px) {
  .dots {
    border-color: transparent;
  }
  .top {
    flex-wrap: nowrap;
    margin-bottom: 0;
    padding: 0;
  }
  .words {
    flex: 1;
    flex-wrap: nowrap;
    overflow: hidden;
  }
  h1 {
    flex: none;
    max-width: 100%;
    overflow: hidden;
    font-size: 20px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* The rail says as much, in fewer words. */
  .holds {
    display: none;
  }
  .sentence {
    flex: 1 1 0;
    min-width: 0;
    overflow: hidden;
    font-size: 13px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
</style>
