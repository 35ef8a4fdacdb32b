<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from "vue";
import { giveFocus } from "@/kit/early-keys";
import LayerMenu from "@/kit/LayerMenu.vue";
import { walk } from "@/kit/walk";
import SayWhen from "@/choosers/SayWhen.vue";
import { type Some, type Until, useBellActions, useLaterOffers } from "@/server/bell";
import { shortMoment } from "@/words/dates";

/** Chooses when rings are told again: from a short list, or in typed words. */
const props = defineProps<{ rings: Some; at: HTMLElement; today: string }>();
const emit = defineEmits<{ close: [] }>();
const actions = useBellActions();
const { data: offers } = useLaterOffers();

const root = useTemplateRef("root");
watch(
  offers,
  async (there) => {
    if (!there) return;
    await nextTick();
    if (!root.value?.contains(document.activeElement))
      giveFocus(root.value?.querySelector<HTMLElement>(".offer"));
  },
  { immediate: true },
);

function choose(until: Until) {
  emit("close");
  void actions.later(props.rings, until);
}
</script>

<template>
  <LayerMenu layer="later" :at="at" @close="emit('close')">
    <div
      ref="root"
      class="later"
      role="dialog"
      :aria-label="rings === 'all' ? 'All later' : 'Later'"
      @keydown.down.prevent="walk($event, 1)"
      @keydown.up.prevent="walk($event, -1)"
    >
      <SayWhen
        field="later"
        example="in 20 min, 4pm, Friday"
        @choose="(v) => choose({ until: v })"
      />
      <div class="offers">
        <button
          v-for="o in offers"
          :key="o.until"
          class="offer"
          @click="choose(o.minutes ? { minutes: o.minutes } : { until: o.until })"
        >
          <span>{{ o.words }}</span>
          <span class="when">{{
            shortMoment(o.until, today).replace(/^(today|tomorrow) /, "")
          }}</span>
        </button>
      </div>
    </div>
  </LayerMenu>
</template>

<style scoped>
.later {
  width: 264px;
  max-width: calc(100vw - 24px);
}
.offers {
  display: flex;
  flex-direction: column;
  padding: 6px 0;
}
.offer {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  min-height: 34px;
  padding: 0 12px;
  align-items: center;
  cursor: pointer;
}
.offer:hover,
.offer:focus-visible {
  background: var(--wash);
}
.when {
  color: var(--pencil);
  font-variant-numeric: tabular-nums;
}
@media (pointer: coarse) {
  .offer {
    min-height: 44px;
  }
}
</style>
