<script setup lang="ts">
import type { OwnView } from "@/server/client";
import PathIcon from "@/kit/PathIcon.vue";
import { colours } from "@/words/names";
import { groupings, orderings } from "@/words/questions";
import { viewIcons } from "@/words/view-icons";

/** How a view of one's own looks: its shape, groups, order, picture and position in the index. */
const shape = defineModel<string>("shape", { required: true });
const group = defineModel<string>("group", { required: true });
const order = defineModel<string[]>("order", { required: true });
const urgentDays = defineModel<number>("urgentDays", { required: true });
const icon = defineModel<OwnView["icon"]>("icon", { required: true });
const colour = defineModel<OwnView["colour"]>("colour", { required: true });
const pinned = defineModel<boolean>("pinned", { required: true });
const counted = defineModel<boolean>("counted", { required: true });

function setOrder(nth: number, key: string) {
  const next = [...order.value];
  next[nth] = key;
  order.value = next.filter(Boolean);
}
</script>

<template>
  <fieldset class="looks">
    <legend>How it looks</legend>
    <label for="view-shape">Shape</label>
    <span class="pair">
      <select id="view-shape" v-model="shape" class="box">
        <option value="">rows</option>
        <option value="columns">columns</option>
        <option value="two-by-two">two-by-two: important and urgent</option>
      </select>
      <template v-if="shape === 'two-by-two'">
        <label for="view-urgent">urgent within</label>
        <input
          id="view-urgent"
          v-model.number="urgentDays"
          class="box number"
          type="number"
          min="1"
          max="60"
        />
        days
      </template>
    </span>
    <template v-if="shape !== 'two-by-two'">
      <label for="view-group">{{ shape === "columns" ? "A column for each" : "Groups" }}</label>
      <select id="view-group" v-model="group" class="box">
        <option v-for="g in groupings" :key="g.value" :value="g.value">{{ g.name }}</option>
      </select>
    </template>
    <label for="view-order">Order</label>
    <span class="pair">
      <select
        id="view-order"
        class="box"
        :value="order[0] ?? ''"
        @change="setOrder(0, ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="o in orderings" :key="o.value" :value="o.value">{{ o.name }}</option>
      </select>
      <template v-if="order.length">
        <label for="view-then">then</label>
        <select
          id="view-then"
          class="box"
          :value="order[1] ?? ''"
          @change="setOrder(1, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">your own order</option>
          <option v-for="o in orderings.slice(1, -1)" :key="o.value" :value="o.value">
            {{ o.name }}
          </option>
        </select>
      </template>
    </span>
    <span id="view-icon">Picture</span>
    <span class="icons" role="radiogroup" aria-labelledby="view-icon">
      <button
        v-for="(path, word) in viewIcons"
        :key="word"
        type="button"
        role="radio"
        :aria-checked="icon === word"
        :aria-label="word"
        :title="word"
        @click="icon = word"
      >
        <PathIcon :path="path" />
      </button>
    </span>
    <span id="view-colour">Colour</span>
    <span class="icons" role="radiogroup" aria-labelledby="view-colour">
      <button
        v-for="c in colours"
        :key="c"
        type="button"
        role="radio"
        :aria-checked="colour === c"
        :aria-label="c"
        :title="c"
        @click="colour = c"
      >
        <span class="dot" :style="{ background: `var(--${c})` }" />
      </button>
    </span>
    <span>Index</span>
    <span class="ticks">
      <label><input v-model="counted" type="checkbox" /> show its count</label>
      <label><input v-model="pinned" type="checkbox" /> pin it to the head</label>
    </span>
  </fieldset>
</template>

<style scoped>
.looks {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 8px 12px;
  align-items: center;
  margin-top: 18px;
  padding: 12px 0 0;
  border: 0;
  border-top: 1px solid var(--tin);
}
legend {
  float: left;
  grid-column: 1 / 3;
  margin-bottom: 2px;
  color: var(--pencil);
  font-size: 14px;
}
.box {
  width: 100%;
  max-width: 320px;
  min-height: 34px;
  padding: 0 8px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
.pair {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.pair .box {
  flex: 0 1 230px;
  width: auto;
}
.pair .number {
  flex: 0 0 64px;
}
.icons {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.icons button {
  display: grid;
  place-items: center;
  width: 32px;
  height: 30px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.icons button[aria-checked="true"] {
  border-color: var(--rim);
  background: var(--wash);
  color: var(--rim);
}
.dot {
  width: 12px;
  height: 12px;
  border-radius: 2px;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.ticks label {
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: 24px;
}
.ticks input {
  width: 16px;
  height: 16px;
  accent-color: var(--rim);
}
@media (max-width: 760px) {
  .looks {
    grid-template-columns: 1fr;
    gap: 4px;
  }
  legend {
    grid-column: 1;
  }
}
</style>
