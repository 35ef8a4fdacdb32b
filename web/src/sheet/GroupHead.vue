<script setup lang="ts">
import PathIcon from "@/kit/PathIcon.vue";
import type { MenuItem } from "@/kit/menu";
import { computed, useTemplateRef } from "vue";
import { useMediaQuery } from "@vueuse/core";
import { mdiDotsHorizontal } from "@mdi/js";
import type { List, Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { useMany } from "@/server/many";
import { useOrderDrag } from "@/state/order-drag";
import { useArrangement } from "@/server/arrangement";
import type { ShownGroup } from "./shown";
import { workWords } from "@/words/fields";
import { assumingWords, fillOf, fullWords, hoursWords, ownWords } from "@/words/load";
import { groupHead } from "@/words/groups";
import ActionMenu from "@/kit/ActionMenu.vue";
import EventsButton from "./EventsButton.vue";
import CupGlyph from "@/kit/CupGlyph.vue";

const props = defineProps<{
  group: ShownGroup;
  today: string;
  overview: Overview;
  /** Upcoming shows each day's cup beside its name. */
  withCup?: boolean;
  /** The list that a section is one of. */
  list?: List;
  folded?: boolean;
  folds?: boolean;
}>();
defineEmits<{ fold: []; all: [] }>();
const current = useCurrent();
const many = useMany();
const arrangement = useArrangement();
const narrow = useMediaQuery("(max-width: 760px)");

const words = computed(() => groupHead(props.group, props.today, cup.value && narrow.value));
/** Upcoming's days, weeks and months have a cup each. */
const cup = computed(() => props.withCup && /^(day|(this-)?(week|month))$/.test(props.group.kind));
const fill = computed(() => fillOf(props.group.load, props.group.count));
/** "3 h of 4 h"; on a phone, where the day's name needs the room, "2 h over". */
const hours = computed(() => {
  if (!cup.value || !props.group.load) return "";
  if (!narrow.value) return assumingWords(props.group.load);
  return fill.value.over ? hoursWords(props.group.load) : fullWords(props.group.load);
});
/** The same of own hours; on a phone the saucer alone says that there is something. */
const own = computed(() => (cup.value && !narrow.value ? ownWords(props.group.load) : ""));
/** The day's events; on a phone they have a line of their own. */
const events = computed(() => (cup.value && props.group.events) || "");
const count = computed(() => {
  const n = props.group.count - (props.group.notes ?? 0);
  if (props.folds) return `${props.folded ? "show" : "hide"} ${n || ""}`;
  const many = props.group.kind === "handful" ? `${n} of 5` : n || "";
  const minutes = cup.value ? 0 : props.group.minutes;
  return many && minutes
    ? `${many}, ${workWords(minutes, props.group.assumed ?? 0, narrow.value)}`
    : many;
});
const section = computed(() =>
  props.group.kind === "section"
    ? props.list?.sections?.find((s) => s.id === props.group.of)
    : undefined,
);
// A section's head is dragged among the others, and takes rows.
const root = useTemplateRef<HTMLElement>("root");
const { edge, over: hovered } = useOrderDrag(
  root,
  "section",
  () => section.value?.id,
  ({ id, ...beside }) => void arrangement.moveSection({ id }, beside),
  (id) =>
    section.value &&
    void many.move(id, { list: props.list?.id ?? null, section: section.value.id }),
);
const items = computed<MenuItem[]>(() => {
  const s = section.value;
  const all = props.list?.sections ?? [];
  if (!s) return [];
  const at = all.indexOf(s);
  const before = all[at - 1];
  const behind = all[at + 1];
  return [
    { name: "Put something in", act: () => (current.adding = { row: s.id, inside: true }) },
    { name: "Rename…", act: () => arrangement.renameSection(s) },
    ...(before
      ? [{ name: "Move up", act: () => arrangement.moveSection(s, { before: before.id }) }]
      : []),
    ...(behind
      ? [{ name: "Move down", act: () => arrangement.moveSection(s, { after: behind.id }) }]
      : []),
    {
      name: "Take the section out, keep its to-dos",
      act: () => arrangement.deleteSection(s, false),
      apart: true,
    },
    { name: "Put it in the bin with its to-dos", act: () => arrangement.deleteSection(s, true) },
  ];
});
</script>

<template>
  <component
    :is="folds ? 'button' : 'div'"
    v-if="words"
    ref="root"
    class="head"
    :class="[
      { late: group.kind === 'overdue', folds, hovered: section && hovered },
      section && edge && `land-${edge}`,
    ]"
    :aria-expanded="folds ? !folded : undefined"
    @click="folds && $emit('fold')"
  >
    <CupGlyph
      v-if="cup"
      :level="fill.level"
      :assumed="fill.assumed"
      :saucer="Boolean(group.load?.own?.minutes)"
      :size="20"
    />
    <h2 :class="{ before: hours }">{{ words }}</h2>
    <span v-if="hours" class="hours" :class="{ over: fill.over, followed: own || events }">{{
      hours
    }}</span>
    <span v-if="own" class="hours own" :class="{ followed: events }">{{ own }}</span>
    <EventsButton v-if="events && !narrow" :day="group.horizon!" :words="events" />
    <template v-if="!folds">
      <ActionMenu
        v-if="items.length"
        class="btn quiet hidden"
        :label="`More for ${words}`"
        :items="() => items"
      >
        <PathIcon :path="mdiDotsHorizontal" :size="16" />
      </ActionMenu>
      <button
        v-if="group.count > 1"
        class="btn quiet hidden all"
        :title="`Choose all ${group.count} of ${words}`"
        @click="$emit('all')"
      >
        choose all
      </button>
    </template>
    <span class="count">{{ count }}</span>
  </component>
  <EventsButton v-if="events && narrow" :day="group.horizon!" :words="events" />
</template>

<style scoped>
.head {
  position: relative;
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 36px;
  padding: 4px 8px 0 0;
  border-bottom: 1px solid var(--ink);
  text-align: left;
}
@media (max-width: 760px) {
  .head {
    min-height: 32px;
  }
}
.hovered {
  outline: 2px dashed var(--rim);
  outline-offset: -2px;
}
h2 {
  flex: 1;
  overflow: hidden;
  font-size: 15px;
  line-height: 20px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.late h2 {
  color: var(--madder);
}
.count {
  color: var(--pencil);
  font-size: 14px;
}
.before {
  flex: 0 1 auto;
}
.hours {
  flex: 1;
  white-space: nowrap;
  color: var(--pencil);
  font-size: 14px;
}
.followed {
  flex: none;
}
.own {
  min-width: 60px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.own.followed {
  flex: 0 1 auto;
}
/* Beside events there is no room for its words, which the saucer stands for. */
@media (max-width: 1100px) {
  .own.followed {
    display: none;
  }
}
.over {
  color: var(--copper);
  font-size: 14px;
  font-weight: 600;
}
/* Shown under the pointer or the focus; always where there is no pointer. */
.hidden {
  flex: none;
  min-height: 24px;
  padding: 0 7px;
  color: var(--pencil);
  font-size: 13px;
  white-space: nowrap;
  opacity: 0;
}
.head:hover .hidden,
.hidden:focus-visible {
  opacity: 1;
}
@media (hover: none) {
  .hidden {
    opacity: 1;
  }
}
/* A phone has "Choose", and no room for both. */
@media (max-width: 760px) {
  .all {
    display: none;
  }
}
.folds {
  cursor: pointer;
}
.folds:hover .count {
  text-decoration: underline;
}
</style>
