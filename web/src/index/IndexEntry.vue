<script setup lang="ts">
import PathIcon from "@/kit/PathIcon.vue";
import type { MenuItem } from "@/kit/menu";
import { mdiDotsHorizontal } from "@mdi/js";
import { computed, useTemplateRef } from "vue";
import type { List, OwnView } from "@/server/client";
import { viewIcons } from "@/words/view-icons";
import { type Landing, useOrderDrag } from "@/state/order-drag";
import ActionMenu from "@/kit/ActionMenu.vue";

/**
 * One line of the index. One with `takes` moves what is dropped on it; a list
 * can be dragged among the others itself.
 */

const props = defineProps<{
  to: string;
  name: string;
  count?: number;
  /** Words in the place of a count. */
  note?: string;
  list?: List;
  view?: OwnView;
  takes?: boolean;
  items?: MenuItem[];
}>();
const emit = defineEmits<{ drop: [id: string]; land: [landing: Landing] }>();

const root = useTemplateRef("root");
const { edge, over } = useOrderDrag(
  root,
  props.view ? "view" : "list",
  () => (props.list ?? props.view)?.id,
  (landing) => emit("land", landing),
  props.takes ? (id) => emit("drop", id) : undefined,
);
const label = computed(() => `More for ${props.name}`);
/** Alt and an arrow move a list, as they move a row. */
const move = (name: string) => props.items?.find((i) => i.name === name)?.act();
</script>

<template>
  <li ref="root" :class="edge && `land-${edge}`">
    <router-link
      :to="to"
      class="entry"
      draggable="false"
      :class="{ over, listed: list || view }"
      active-class="here"
      @keydown.alt.up.prevent="move('Move up')"
      @keydown.alt.down.prevent="move('Move down')"
    >
      <span v-if="list" class="dot" :style="{ background: `var(--${list.colour})` }" />
      <PathIcon
        v-if="view"
        :path="viewIcons[view.icon]"
        :size="15"
        class="icon"
        :style="{ '--own': `var(--${view.colour})` }"
      />
      <span class="name" :title="name">{{ name }}</span>
      <span v-if="note" class="count">{{ note }}</span>
      <span v-if="count !== undefined && (count || view?.counted)" class="count">{{ count }}</span>
    </router-link>
    <ActionMenu v-if="items" class="more" :label="label" :items="() => items ?? []">
      <PathIcon :path="mdiDotsHorizontal" :size="16" />
    </ActionMenu>
  </li>
</template>

<style scoped>
li {
  position: relative;
}
.icon {
  flex: none;
  color: var(--own);
}
.here .icon {
  color: inherit;
}
.more {
  position: absolute;
  top: 1px;
  right: 4px;
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: var(--corner);
  background: var(--wash);
  color: var(--pencil);
  cursor: pointer;
  opacity: 0;
}
li:hover .more,
.more:focus-visible,
.more[aria-expanded="true"] {
  opacity: 1;
}
.entry:focus-visible + .more {
  opacity: 1;
}
@media (hover: none) {
  .more {
    opacity: 1;
  }
  .entry:has(+ .more) {
    padding-right: 44px;
  }
}
.entry {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 26px;
  padding: 0 8px;
  border-radius: var(--corner);
  border: 1px solid transparent;
  color: inherit;
  text-decoration: none;
  font-size: 14px;
}
@media (hover: none) {
  .entry {
    height: 38px;
  }
  .more {
    width: 36px;
    height: 36px;
    background: none;
  }
}
.listed {
  gap: 7px;
  padding-left: 15px;
}
.entry:hover {
  background: var(--wash);
}
.entry.here {
  background: var(--rim);
  color: var(--glaze);
  font-weight: 600;
}
.entry.over {
  border: 1px dashed var(--rim);
  background: var(--wash);
  color: var(--ink);
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.count {
  color: var(--pencil);
}
.here .count {
  color: inherit;
}
.dot {
  flex: none;
  width: 8px;
  height: 8px;
  border-radius: 2px;
}
.here .dot {
  outline: 1px solid var(--glaze);
}
</style>
