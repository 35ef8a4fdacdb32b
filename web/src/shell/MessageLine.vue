<script setup lang="ts">
import { computed, nextTick, watch } from "vue";
import { useActions } from "@/server/actions";
import { pressOf } from "@/state/keys";
import { byKeys } from "@/kit/pointer-rest";
import { useRoom } from "@/kit/room";
import { type Toast, useToasts } from "@/kit/toasts";

/** The line of messages at the foot of the sheet: what was done, or why it was not, one at a time. */
const toasts = useToasts();
const actions = useActions();
const latest = computed(() => toasts.toasts.at(-1));
const room = useRoom(() => latest.value !== undefined);
const shown = computed(() => (room.value ? latest.value : undefined));
watch([latest, room], () => toasts.keepBack(latest.value !== undefined && !room.value), {
  immediate: true,
});
// The element that keys are on stays in sight where the sheet becomes lower.
watch(room, async (has) => {
  await nextTick();
  const focus = document.activeElement;
  if (has && byKeys() && focus?.closest("main")) focus.scrollIntoView({ block: "nearest" });
});

/** Does what a message offers beside undo; the message goes first, as its answer may be another. */
function also({ id, also }: Toast) {
  toasts.dismiss(id);
  also?.act();
}

/** The page's keys are off in here, but for these two. */
function undo(e: KeyboardEvent) {
  const press = pressOf(e);
  if (press === "Ctrl+z") void actions.undo();
  else if (press === "Ctrl+Shift+Z") void actions.redo();
  else return;
  e.preventDefault();
}
</script>

<template>
  <div class="messages" :class="{ room }" role="status" aria-live="polite">
    <div
      v-if="shown"
      :key="shown.id"
      class="toast"
      :class="{ trouble: shown.trouble }"
      data-layer="toast"
      @keydown.esc.stop="toasts.dismiss(shown.id)"
      @keydown="undo"
      @pointermove="toasts.hold(shown.id)"
      @pointerleave="toasts.hold(undefined)"
      @focusin="toasts.hold(shown.id)"
      @focusout="toasts.hold(undefined)"
    >
      <span class="text">{{ shown.text }}</span>
      <progress v-if="shown.busy" :aria-label="shown.text" />
      <a v-if="shown.also?.href" class="undo" :href="shown.also.href">{{ shown.also.name }}</a>
      <button v-else-if="shown.also" class="undo" @click="also(shown)">
        {{ shown.also.name }}
      </button>
      <button v-if="shown.undo" class="undo" @click="actions.undo(shown.undo)">Undo</button>
      <span class="gap" />
      <button
        v-if="!shown.busy"
        class="close"
        aria-label="Put this message away"
        @click="toasts.dismiss(shown.id)"
      >
        ×
      </button>
    </div>
  </div>
</template>

<style scoped>
.messages {
  flex: none;
}
.room {
  min-height: 45px;
  border-top: 1px solid var(--tin);
  background: var(--enamel);
}
.toast {
  display: flex;
  align-items: center;
  gap: 6px 14px;
  min-height: 44px;
  padding: 4px 20px 4px 30px;
}
.trouble {
  border-left: 6px solid var(--madder);
  padding-left: 24px;
}
.text {
  max-width: 820px;
  overflow-wrap: anywhere;
}
.gap {
  flex: 1;
}
.undo {
  display: inline-flex;
  flex: none;
  align-items: center;
  min-height: 28px;
  padding: 0 4px;
  color: var(--rim);
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
}
progress {
  width: 90px;
  height: 4px;
  accent-color: var(--rim);
}
.close {
  flex: none;
  width: 28px;
  height: 28px;
  color: var(--pencil);
  font-size: 18px;
  cursor: pointer;
}
.close:hover {
  color: var(--ink);
}
@media (max-width: 760px) {
  .toast {
    padding: 4px 8px 4px 16px;
  }
  .trouble {
    padding-left: 10px;
  }
  .text {
    flex: 1;
  }
  .gap {
    display: none;
  }
}
</style>
