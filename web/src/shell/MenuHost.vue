<script setup lang="ts">
import { computed, nextTick, onMounted, useTemplateRef } from "vue";
import { giveFocus } from "@/kit/early-keys";
import { type Menu, type MenuItem, useMenu } from "@/kit/menu";
import LayerMenu from "@/kit/LayerMenu.vue";

/** The menu that is open, hung on its button. */
const props = defineProps<{ menu: Menu }>();
const menus = useMenu();
const list = useTemplateRef("list");
const marks = computed(() => props.menu.items.some((i) => i.checked !== undefined));

onMounted(async () => {
  await nextTick();
  const buttons = [...(list.value?.querySelectorAll<HTMLElement>("button") ?? [])];
  giveFocus(buttons.find((b) => b.ariaChecked === "true") ?? buttons[0]);
});
function step(e: KeyboardEvent, by: 1 | -1) {
  const buttons = [...(list.value?.querySelectorAll<HTMLElement>("button") ?? [])];
  const at = buttons.indexOf(document.activeElement as HTMLElement);
  buttons[(at + by + buttons.length) % buttons.length]?.focus();
  e.preventDefault();
}
function close() {
  const { at } = props.menu;
  menus.menu = undefined;
  at.focus();
}
function take(item: MenuItem) {
  close();
  item.act();
}
</script>

<template>
  <LayerMenu layer="menu" :at="menu.at" :start="menu.asks" @close="close">
    <div
      ref="list"
      class="menu"
      role="menu"
      :aria-label="menu.label"
      @keydown.down="(e) => step(e, 1)"
      @keydown.up="(e) => step(e, -1)"
    >
      <p v-if="menu.asks" class="asks" aria-hidden="true">{{ menu.label }}</p>
      <button
        v-for="item in menu.items"
        :key="item.name"
        :role="item.checked === undefined ? 'menuitem' : 'menuitemradio'"
        :aria-checked="item.checked"
        :class="{ apart: item.apart }"
        @click="take(item)"
      >
        <span v-if="marks" class="mark">{{ item.checked ? "✓" : "" }}</span>
        {{ item.name }}
      </button>
    </div>
  </LayerMenu>
</template>

<style scoped>
.menu {
  min-width: 190px;
  padding: 6px;
}
.menu button {
  display: flex;
  align-items: center;
  width: 100%;
  min-height: 30px;
  padding: 0 10px;
  border-radius: var(--corner);
  text-align: left;
  cursor: pointer;
}
.menu button:hover,
.menu button:focus-visible {
  background: var(--wash);
}
@media (pointer: coarse) {
  .menu button {
    min-height: 42px;
  }
}
.asks {
  padding: 4px 10px 6px;
  color: var(--pencil);
}
.mark {
  width: 20px;
}
.apart {
  position: relative;
  margin-top: 9px;
}
.apart::before {
  position: absolute;
  top: -5px;
  right: 4px;
  left: 4px;
  border-top: 1px solid var(--tin);
  content: "";
}
</style>
