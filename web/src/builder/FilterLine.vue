<script setup lang="ts">
import { computed } from "vue";
import type { Overview } from "@/server/client";
import { askingOf, newTest, type TestLine } from "./tree";
import { fieldOf, fields } from "@/words/questions";
import PickSome, { type Option } from "./PickSome.vue";
import WhenValue from "./WhenValue.vue";

/** One test in plain words: what, how, and with which value. */
const props = defineProps<{ overview: Overview; nth: string; blamed: boolean; passes?: number }>();
const line = defineModel<TestLine>({ required: true });
defineEmits<{ remove: [] }>();

const field = computed(() => fieldOf(line.value.field));
const asking = computed(() => askingOf(line.value));
const askingKey = computed(() => `${line.value.not ? "!" : ""}${line.value.op}`);

/** Another field keeps the line where it is; its words begin anew. */
function setField(name: string) {
  line.value = { ...newTest(name), id: line.value.id };
}
function setAsking(key: string) {
  const next = { ...line.value, not: key.startsWith("!"), op: key.replace("!", "") };
  line.value = next;
}

const options = computed<Option[]>(() => {
  const o = props.overview;
  switch (line.value.field) {
    case "tag":
      return o.tags.map((t) => ({ value: t.id, name: t.name, colour: t.colour }));
    case "list":
      return o.shelves.flatMap((s) =>
        s.lists.map((l) => ({ value: l.id, name: l.name, colour: l.colour })),
      );
    case "shelf":
      return o.shelves.map((s) => ({ value: s.id, name: s.name }));
    case "section":
      return o.shelves.flatMap((s) =>
        s.lists.flatMap((l) =>
          (l.sections ?? []).map((x) => ({ value: x.id, name: `${x.name} in ${l.name}` })),
        ),
      );
    case "person":
      return o.people.map((p) => ({ value: p.id, name: p.name }));
  }
  return [];
});
const what = computed(
  () => ({ shelf: "shelf", person: "person" })[line.value.field] ?? field.value.name,
);
function toggle(value: string) {
  const has = line.value.values.includes(value);
  line.value.values = has
    ? line.value.values.filter((v) => v !== value)
    : [...line.value.values, value];
}
const weeks = computed(() => line.value.days > 0 && line.value.days % 7 === 0);
function setDays(text: string) {
  line.value.days = Math.min(Math.max(Math.round(Number(text)) || 0, 0), 36500);
}
</script>

<template>
  <div class="line" :class="{ blamed }" role="group" :aria-label="`Line ${nth}`">
    <select
      class="box"
      :value="line.field"
      :aria-label="`Line ${nth}: what`"
      @change="setField(($event.target as HTMLSelectElement).value)"
    >
      <option v-for="f in fields" :key="f.field" :value="f.field">{{ f.name }}</option>
    </select>
    <select
      class="box"
      :value="askingKey"
      :aria-label="`Line ${nth}: how`"
      @change="setAsking(($event.target as HTMLSelectElement).value)"
    >
      <option
        v-for="a in field.asks"
        :key="`${a.not ? '!' : ''}${a.op}`"
        :value="`${a.not ? '!' : ''}${a.op}`"
      >
        {{ a.words }}
      </option>
    </select>
    <div v-if="asking.wants !== 'nothing'" class="box filled">
      <PickSome
        v-if="asking.wants === 'ids'"
        v-model="line.values"
        :options="options"
        :what="what"
      />
      <span v-else-if="asking.wants === 'words'" class="words">
        <button
          v-for="v in field.values"
          :key="v.value"
          type="button"
          class="choice"
          :aria-pressed="line.values.includes(v.value)"
          @click="toggle(v.value)"
        >
          {{ v.name }}
        </button>
      </span>
      <input
        v-else-if="asking.wants === 'text'"
        v-model="line.text"
        class="free"
        maxlength="500"
        :aria-label="`Line ${nth}: text`"
        :placeholder="
          line.field === 'place' ? 'a place, or a part of it' : 'some words, as they stand'
        "
        :list="line.field === 'place' ? 'used-places' : undefined"
      />
      <span v-else-if="asking.wants === 'days'" class="row">
        <input
          class="number"
          type="number"
          min="0"
          :value="line.days"
          :aria-label="`Line ${nth}: days`"
          @input="setDays(($event.target as HTMLInputElement).value)"
        />
        days<span v-if="weeks" class="quiet">
          = {{ line.days / 7 }} {{ line.days === 7 ? "week" : "weeks" }}</span
        >
      </span>
      <WhenValue
        v-else-if="asking.wants === 'date'"
        v-model="line.date"
        :today="overview.today"
        :label="`Line ${nth}: day`"
      />
      <span v-else-if="asking.wants === 'between'" class="row">
        <WhenValue v-model="line.date" :today="overview.today" :label="`Line ${nth}: first day`" />
        to
        <WhenValue v-model="line.to" :today="overview.today" :label="`Line ${nth}: last day`" />
      </span>
      <span v-else-if="asking.wants === 'times'" class="row">
        <input v-model="line.from" type="time" :aria-label="`Line ${nth}: from`" /> to
        <input v-model="line.until" type="time" :aria-label="`Line ${nth}: until`" />
      </span>
      <span v-else class="row">
        <input
          v-model.number="line.minutes"
          class="number"
          type="number"
          min="1"
          :aria-label="`Line ${nth}: minutes`"
        />
        min
      </span>
    </div>
    <span v-else class="filled none" />
    <span
      class="passes"
      :title="passes === undefined ? '' : 'This line alone lets so many through'"
    >
      {{ passes }}
    </span>
    <button
      type="button"
      class="out"
      :aria-label="`Take line ${nth} out`"
      title="Take this line out"
      @click="$emit('remove')"
    >
      ×
    </button>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 150px 190px minmax(0, 1fr) 34px 26px;
  gap: 8px;
  align-items: start;
}
.box {
  min-height: 34px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background-color: var(--glaze);
}
.blamed .box {
  border-color: var(--madder);
  background-color: color-mix(in srgb, var(--madder) 7%, var(--glaze));
}
select.box {
  width: 100%;
  padding: 0 8px;
  cursor: pointer;
}
.filled {
  display: flex;
  align-items: center;
}
.filled > * {
  flex: 1;
}
.row,
.words,
.filled :deep(.when) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  min-height: 32px;
  padding: 0 8px;
}
.row :deep(.when) {
  flex: none;
  padding: 0;
}
.words {
  padding-block: 3px;
}
.free {
  width: 100%;
  height: 32px;
  padding: 0 8px;
}
.filled :deep(.number),
.filled :deep(input[type]) {
  height: 26px;
  border-bottom: 1px solid var(--pencil);
}
.filled :deep(.number) {
  width: 58px;
}
.filled :deep(select) {
  height: 28px;
  cursor: pointer;
}
.quiet {
  color: var(--pencil);
}
.choice {
  min-height: 26px;
  padding: 0 9px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  color: var(--pencil);
  cursor: pointer;
}
.choice:hover {
  background: var(--wash);
}
.choice[aria-pressed="true"] {
  border-color: var(--rim);
  background: var(--wash);
  color: var(--ink);
  font-weight: 600;
}
.passes {
  color: var(--pencil);
  font-size: 13px;
  line-height: 34px;
  text-align: right;
}
.out {
  height: 34px;
  border-radius: var(--corner);
  color: var(--pencil);
  font-size: 17px;
  cursor: pointer;
}
.out:hover {
  background: var(--wash);
  color: var(--ink);
}
@media (max-width: 760px) {
  .line {
    grid-template-columns: 1fr 1fr 26px;
    padding-bottom: 8px;
    border-bottom: 1px solid var(--tin);
  }
  .filled {
    grid-column: 1 / 3;
  }
  .filled.none,
  .passes {
    display: none;
  }
  .out {
    grid-row: 1;
    grid-column: 3;
  }
}
</style>
