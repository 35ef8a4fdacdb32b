<script setup lang="ts">
import { ref, useTemplateRef, watch } from "vue";
import { useCapture } from "@/composables/capture";
import { useCurrent } from "@/composables/current";

const { text, reason, putIn } = useCapture("capture");
const current = useCurrent();
const input = useTemplateRef("input");
const focused = ref(false);

watch(
  () => current.capture,
  () => input.value?.focus(),
);
</script>

<template>
  <div class="line" :class="{ focused }">
    <input
      ref="input"
      v-model="text"
      type="text"
      aria-label="Put something in"
      placeholder="What is on your mind? It goes into the Cup"
      autocomplete="off"
      enterkeyhint="done"
      :aria-invalid="reason !== ''"
      aria-describedby="capture-reason"
      @focus="focused = true"
      @blur="focused = false"
      @keydown.enter.exact.prevent="putIn(false)"
      @keydown.ctrl.enter.exact.prevent="putIn(true)"
      @keydown.meta.enter.exact.prevent="putIn(true)"
      @keydown.esc.prevent="input?.blur()"
    />
    <button v-if="text.trim()" class="key" tabindex="-1" @mousedown.prevent @click="putIn(false)">
      Put in
    </button>
    <span v-else-if="!focused" class="key hint-key" aria-hidden="true">n</span>
    <div v-if="reason || (focused && text)" id="capture-reason" class="under floating">
      <p v-if="reason" class="reason" role="alert">{{ reason }}</p>
      <p v-else class="hint">
        <span class="key">Enter</span> put in <span class="key">Ctrl Enter</span> put in and open
        <span class="key">Esc</span> leave for later
      </p>
    </div>
  </div>
</template>

<style scoped>
.line {
  position: relative;
  flex: 1;
  display: flex;
  align-items: center;
  height: 36px;
  padding: 0 10px 0 12px;
  border-radius: var(--corner);
  background: var(--glaze);
  color: var(--ink);
}
.line input {
  flex: 1;
  min-width: 0;
  height: 100%;
  outline: none;
}
.line.focused {
  outline: 2px solid var(--copper);
  outline-offset: 1px;
}
button.key {
  cursor: pointer;
  color: var(--rim);
  border-color: var(--rim);
  line-height: 22px;
}
.under {
  position: absolute;
  z-index: 20;
  top: calc(100% + 6px);
  left: 0;
  right: 0;
  padding: 8px 12px;
}
.hint {
  color: var(--pencil);
  font-size: 13px;
}
.hint .key:not(:first-child) {
  margin-left: 10px;
}
.reason {
  color: var(--madder);
}
@media (max-width: 760px) {
  .line {
    height: 44px;
    border: 2px solid var(--rim);
  }
  .under {
    top: auto;
    bottom: calc(100% + 6px);
  }
  .hint,
  .hint-key {
    display: none;
  }
  .under:has(.hint) {
    display: none;
  }
}
</style>
