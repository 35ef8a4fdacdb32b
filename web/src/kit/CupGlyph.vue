<script setup lang="ts">
import { computed, useId } from "vue";

/** An enamel cup that fills with its load. */
const props = withDefaults(
  defineProps<{
    /** Load against capacity: 1 is full to the brim, more is over it. */
    level?: number;
    /** Which part of the level is only assumed: it is drawn dotted. */
    assumed?: number;
    /** It stands on a saucer: something lies beside what fills it. */
    saucer?: boolean;
    /** Height in pixels; the width follows. */
    size?: number;
  }>(),
  { level: 0, assumed: 0, saucer: false, size: 32 },
);

const clip = useId();
const over = computed(() => props.level > 1);
/** A single slip still shows. */
const share = computed(() => (props.level > 0 ? Math.min(Math.max(props.level, 0.12), 1) : 0));
const surface = computed(() => 33 - share.value * 25);
/** Where what is known ends. */
const known = computed(() => {
  const part = props.level > 0 ? Math.min(props.assumed / props.level, 1) : 0;
  return 33 - share.value * (1 - part) * 25;
});
</script>

<template>
  <svg
    class="cup"
    :class="{ over }"
    :width="(size * 44) / 38"
    :height="size"
    viewBox="0 0 44 38"
    aria-hidden="true"
  >
    <defs>
      <clipPath :id="clip">
        <path
          d="M6.500 6 V27.500 Q6.500 33.500 12.500 33.500 H27.500 Q33.500 33.500 33.500 27.500 V6 Z"
        />
      </clipPath>
    </defs>
    <path v-if="saucer" class="line thin" d="M2 34.500 Q20 41 38 34.500" />
    <path v-if="over" class="heap" d="M9 5.500 Q20 -3 31 5.500 Z" />
    <path
      class="body"
      d="M6.500 6 V27.500 Q6.500 33.500 12.500 33.500 H27.500 Q33.500 33.500 33.500 27.500 V6 Z"
    />
    <path
      v-if="share"
      class="load"
      :clip-path="`url(#${clip})`"
      :d="`M0 ${known} q7 -2 13 0 t13 0 t13 0 V40 H0 Z`"
    />
    <path
      v-if="assumed && share"
      class="guess"
      :clip-path="`url(#${clip})`"
      :d="`M7 ${surface} q7 -2 13 0 t13 0`"
    />
    <path
      v-if="assumed && share"
      class="load faint"
      :clip-path="`url(#${clip})`"
      :d="`M0 ${surface} q7 -2 13 0 t13 0 t13 0 V40 H0 Z`"
    />
    <path
      class="line"
      d="M6.500 6 V27.500 Q6.500 33.500 12.500 33.500 H27.500 Q33.500 33.500 33.500 27.500 V6"
    />
    <path class="line" d="M33.500 11 H36 q5 0 5 5 v2 q0 5 -5 5 H33.500" />
    <path class="lip" d="M4.500 6 H35.500" />
  </svg>
</template>

<style scoped>
.cup {
  display: block;
  overflow: visible;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.body {
  fill: var(--glaze);
}
.load {
  fill: var(--fill);
}
.faint {
  opacity: 0.35;
}
.guess {
  stroke: var(--rim);
  stroke-width: 1.6;
  stroke-dasharray: 0.1 3.4;
}
.line {
  stroke: var(--rim);
  stroke-width: 2;
}
.lip {
  stroke: var(--rim);
  stroke-width: 3.2;
}
.over .load,
.heap {
  fill: var(--copper);
}
</style>
