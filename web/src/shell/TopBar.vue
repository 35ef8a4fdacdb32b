<script setup lang="ts">
import {
  mdiCogOutline,
  mdiHelpCircleOutline,
  mdiMagnify,
  mdiMenu,
  mdiThemeLightDark,
} from "@mdi/js";
import type { Overview } from "@/server/client";
import { useCurrent } from "@/state/current";
import { useLook } from "@/state/look";
import BellButton from "@/bell/BellButton.vue";
import CaptureLine from "@/capture/CaptureLine.vue";
import TinMark from "@/kit/TinMark.vue";
import WhereMark from "./WhereMark.vue";

defineProps<{ narrow: boolean; overview?: Overview }>();
const emit = defineEmits<{ index: [] }>();
const current = useCurrent();
const look = useLook();
</script>

<template>
  <header class="bar">
    <button v-if="narrow" class="tool" aria-label="Open the index" @click="emit('index')">
      <v-icon :icon="mdiMenu" size="24" />
    </button>
    <router-link to="/today" class="mark"><TinMark /><span>Tin Cup</span></router-link>
    <CaptureLine v-if="!narrow" :overview="overview" />
    <span v-else class="gap" />
    <router-link
      class="tool"
      to="/search"
      aria-label="Search"
      title="Search ( / )"
      @click="current.searching++"
    >
      <v-icon :icon="mdiMagnify" size="22" />
    </router-link>
    <WhereMark v-if="overview" />
    <BellButton v-if="overview" :today="overview.today" />
    <button
      v-if="!narrow"
      class="tool"
      :aria-label="look.dark ? 'Show it light' : 'Show it dark'"
      :title="look.dark ? 'Show it light' : 'Show it dark'"
      @click="look.turn()"
    >
      <v-icon :icon="mdiThemeLightDark" size="22" />
    </button>
    <router-link class="tool" to="/settings" aria-label="Settings" title="Settings">
      <v-icon :icon="mdiCogOutline" size="22" />
    </router-link>
    <button
      class="tool"
      aria-label="Keys"
      title="Keys ( ? )"
      aria-haspopup="dialog"
      @click="current.helping = true"
    >
      <v-icon :icon="mdiHelpCircleOutline" size="22" />
    </button>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 56px;
  padding: 0 16px 0 20px;
  background: var(--bar);
  color: #fffdf8;
}
.mark {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 196px;
  color: inherit;
  text-decoration: none;
  font-family: var(--slab);
  font-size: 20px;
  font-weight: 500;
}
.tool {
  color: inherit;
  display: grid;
  place-items: center;
  width: 36px;
  height: 36px;
  border-radius: var(--corner);
  cursor: pointer;
}
.tool:hover {
  background: rgb(255 255 255 / 12%);
}
.bar :focus-visible {
  outline-color: #fffdf8;
}
.gap {
  flex: 1;
}
@media (max-width: 760px) {
  .bar {
    height: 48px;
    padding: 0 8px;
  }
  .mark {
    width: auto;
  }
}
</style>
