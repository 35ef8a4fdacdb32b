<script setup lang="ts">
/** The square tick box. `half` marks what is in process. */
defineProps<{
  ticked: boolean;
  half?: boolean;
  crossed?: boolean;
  label: string;
  tabindex?: number;
}>();
</script>

<template>
  <button
    class="tick"
    :class="{ ticked, half: half && !ticked }"
    role="checkbox"
    :aria-checked="ticked"
    :aria-label="label"
    :tabindex="tabindex"
  >
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      <rect class="box" x="1" y="1" width="16" height="16" rx="3" />
      <path
        v-if="half && !ticked"
        class="started"
        d="M1.500 10 H16.500 V14 a3 3 0 0 1-3 3 H4.500 a3 3 0 0 1-3-3 Z"
      />
      <path v-if="ticked && crossed" class="sign" d="M5 9 h8" />
      <path v-else-if="ticked" class="sign" d="M4.500 9.500 l3 3 l6 -7" />
    </svg>
  </button>
</template>

<style scoped>
.tick {
  flex: none;
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  margin: 0 -3px 0 -7px;
  cursor: pointer;
}
.box {
  fill: var(--glaze);
  stroke: var(--rim);
  stroke-width: 2;
}
.tick:hover .box {
  fill: var(--wash);
}
.ticked .box {
  fill: var(--rim);
}
.started {
  fill: var(--fill);
}
.sign {
  fill: none;
  stroke: var(--glaze);
  stroke-width: 2.2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
