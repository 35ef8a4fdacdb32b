<script setup lang="ts">
import { useActions } from "@/server/actions";
import { pressOf } from "@/state/keys";
import { useToasts } from "@/kit/toasts";

const toasts = useToasts();
const actions = useActions();

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
  <div class="stack" role="status" aria-live="polite">
    <div
      v-for="t in toasts.toasts"
      :key="t.id"
      class="toast"
      :class="{ trouble: t.trouble }"
      data-layer="toast"
      @keydown.esc.stop="toasts.dismiss(t.id)"
      @keydown="undo"
      @pointermove="toasts.hold(t.id)"
      @pointerleave="toasts.hold(undefined)"
      @focusin="toasts.hold(t.id)"
      @focusout="toasts.hold(undefined)"
    >
      <span class="text">{{ t.text }}</span>
      <progress v-if="t.busy" :aria-label="t.text" />
      <a v-if="t.also?.href" class="undo" :href="t.also.href">{{ t.also.name }}</a>
      <button v-else-if="t.also" class="undo" @click="(toasts.dismiss(t.id), t.also.act())">
        {{ t.also.name }}
      </button>
      <button v-if="t.undo" class="undo" @click="actions.undo(t.undo)">Undo</button>
      <button
        v-if="!t.busy"
        class="close"
        aria-label="Put this message away"
        @click="toasts.dismiss(t.id)"
      >
        ×
      </button>
    </div>
  </div>
</template>

<style scoped>
.stack {
  position: fixed;
  z-index: 3000;
  bottom: 20px;
  left: 50%;
  display: flex;
  flex-direction: column;
  gap: 8px;
  width: max-content;
  max-width: calc(100vw - 24px);
  transform: translateX(-50%);
  pointer-events: none;
}
.toast {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 6px 6px 16px;
  border-radius: var(--corner);
  background: var(--ink);
  color: var(--enamel);
  box-shadow: 0 6px 18px rgb(0 0 0 / 25%);
  pointer-events: auto;
}
.trouble {
  border-left: 6px solid var(--madder);
}
.text {
  flex: 1;
  max-width: 520px;
}
.undo {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  color: inherit;
  text-decoration: none;
  padding: 0 10px;
  border: 1px solid currentcolor;
  border-radius: var(--corner);
  font-weight: 600;
  cursor: pointer;
}
progress {
  width: 90px;
  height: 4px;
  margin: 12px 10px 12px 0;
  accent-color: var(--enamel);
}
.close {
  width: 28px;
  height: 28px;
  font-size: 18px;
  cursor: pointer;
}
.toast :focus-visible {
  outline-color: var(--enamel);
}
@media (max-width: 760px) {
  .stack {
    bottom: 72px;
  }
}
</style>
