<script setup lang="ts">
import { mdiDotsHorizontal, mdiPlus } from "@mdi/js";
import { dropTargetForElements } from "@atlaskit/pragmatic-drag-and-drop/element/adapter";
import { onBeforeUnmount, onMounted, ref, useTemplateRef } from "vue";
import type { Shelf } from "@/server/client";
import type { MenuItem } from "@/kit/menu";
import { type Landing, useOrderDrag } from "@/state/order-drag";
import ActionMenu from "@/kit/ActionMenu.vue";
import PathIcon from "@/kit/PathIcon.vue";

/** A shelf's name in the index; it is dragged among the shelves, and takes lists. */
const props = defineProps<{ shelf: Shelf; items: () => MenuItem[] }>();
const emit = defineEmits<{ add: []; land: [landing: Landing]; take: [list: string] }>();
const root = useTemplateRef("root");
const { edge } = useOrderDrag(
  root,
  "shelf",
  () => props.shelf.id,
  (landing) => emit("land", landing),
);
const over = ref(false);
const name = useTemplateRef("name");
let stop = () => {};
onMounted(() => {
  if (!name.value) return;
  stop = dropTargetForElements({
    element: name.value,
    canDrop: ({ source }) => source.data.kind === "list",
    onDragEnter: () => (over.value = true),
    onDragLeave: () => (over.value = false),
    onDrop: ({ source }) => {
      over.value = false;
      emit("take", String(source.data.id));
    },
  });
});
onBeforeUnmount(() => stop());
/** Alt and an arrow move a shelf, as they move a list. */
const move = (name: string) =>
  props
    .items()
    .find((i) => i.name === name)
    ?.act();
</script>

<template>
  <h3 ref="root" :class="[edge && `land-${edge}`, { over }]">
    <span ref="name" class="shelf-name">
      <router-link
        :to="`/shelf/${shelf.id}`"
        :title="shelf.name"
        draggable="false"
        active-class="here"
        @keydown.alt.up.prevent="move('Move up')"
        @keydown.alt.down.prevent="move('Move down')"
        >{{ shelf.name }}</router-link
      >
    </span>
    <button
      class="plus"
      :aria-label="`New list on ${shelf.name}`"
      :title="`New list on ${shelf.name}`"
      @click="emit('add')"
    >
      <PathIcon :path="mdiPlus" :size="16" />
    </button>
    <ActionMenu class="plus dots" :label="`More for the shelf ${shelf.name}`" :items="items">
      <PathIcon :path="mdiDotsHorizontal" :size="16" />
    </ActionMenu>
  </h3>
</template>

<style scoped>
h3 {
  position: relative;
  display: flex;
  align-items: center;
  justify-content: space-between;
  height: 26px;
  font-family: var(--sans);
  font-size: 14px;
}
.shelf-name {
  flex: 1;
  min-width: 0;
}
.shelf-name a {
  display: block;
  padding: 0 8px;
  overflow: hidden;
  border-radius: var(--corner);
  color: inherit;
  line-height: 26px;
  text-decoration: none;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shelf-name a:hover {
  background: var(--wash);
}
.shelf-name .here {
  background: var(--rim);
  color: var(--glaze);
}
.plus {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.plus:hover {
  background: var(--wash);
  color: var(--rim);
}
.dots {
  opacity: 0;
}
h3:hover .dots,
h3:focus-within .dots,
.dots[aria-expanded="true"] {
  opacity: 1;
}
@media (hover: none) {
  .dots {
    opacity: 1;
  }
}
h3.over {
  outline: 1px dashed var(--rim);
  outline-offset: -1px;
}
</style>
