<script setup lang="ts">
import { computed, ref, watch } from "vue";
import type { CSVColumn } from "@/server/files";
import { columnWords, formWords } from "@/words/files";

/** As what each column of a table is read, and the way to say it by hand. */
const props = defineProps<{ columns: CSVColumn[]; names: string[] }>();
const emit = defineEmits<{ name: [head: string, is: string] }>();
const unknown = computed(() => props.columns.filter((c) => !c.is).length);
const titled = computed(() => props.columns.some((c) => c.is === "title"));
/** All columns are shown; those that are not known always are. */
const all = ref(false);
/** Heads that were asked for; they stay when they are answered, and keep the focus. */
const asked = ref(new Set<string>());
watch(
  () => props.columns,
  (columns) => {
    for (const c of columns) if (!c.is || !titled.value) asked.value.add(c.head);
  },
  { immediate: true },
);
const shown = computed(() =>
  all.value ? props.columns : props.columns.filter((c) => asked.value.has(c.head)),
);
/** What is asked of values that can be read in several ways: once of all dates, and of each column of priorities. */
const questions = computed(() => {
  const of = props.columns.filter((c) => c.forms);
  const dates = of.filter((c) => c.form!.endsWith("-first"));
  const others = of.filter((c) => !dates.includes(c));
  const asked = (columns: CSVColumn[], name: string) => ({
    columns,
    name,
    is: columns[0]!.form!,
    forms: columns[0]!.forms!,
  });
  return [
    ...(dates.length ? [asked(dates, "Dates in this file have")] : []),
    ...others.map((c) => asked([c], `Of the numbers in “${c.head}”`)),
  ];
});
function answer(columns: CSVColumn[], form: string) {
  for (const c of columns) emit("name", c.head, `${c.is}:${form}`);
}
/** Each of our columns is read from one column of the file at most. */
const taken = (name: string, by: CSVColumn) => props.columns.some((c) => c !== by && c.is === name);
</script>

<template>
  <section aria-labelledby="columns-head">
    <header>
      <h2 id="columns-head">{{ columnWords(columns.length, unknown) }}</h2>
      <button v-if="asked.size < columns.length" class="btn quiet" @click="all = !all">
        {{ all ? "Show fewer" : "Show all columns" }}
      </button>
    </header>
    <table v-if="shown.length">
      <thead>
        <tr>
          <th scope="col">In the file</th>
          <th scope="col">The first value</th>
          <th scope="col">Is read as</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in shown" :key="c.head">
          <th scope="row">{{ c.head || "Without a name" }}</th>
          <td class="sample">{{ c.sample }}</td>
          <td>
            <select
              :aria-label="`${c.head} is read as`"
              :value="c.is"
              @change="emit('name', c.head, ($event.target as HTMLSelectElement).value || '-')"
            >
              <option value="">passed over</option>
              <option v-for="n in names" :key="n" :value="n" :disabled="taken(n, c)">
                {{ n }}
              </option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
    <fieldset v-for="q in questions" :key="q.name">
      <legend>{{ q.name }}</legend>
      <label v-for="f in q.forms" :key="f.name">
        <input
          type="radio"
          :name="q.name"
          :value="f.name"
          :checked="f.name === q.is"
          @change="answer(q.columns, f.name)"
        />
        <span>{{ formWords[f.name] }}</span>
        <span class="sample">{{ f.says }}</span>
      </label>
    </fieldset>
    <p v-if="unknown || questions.length">
      What you choose is remembered for files with the same heads.
    </p>
  </section>
</template>

<style scoped>
section {
  max-height: 320px;
  margin-top: 12px;
  overflow: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 12px;
  min-height: 32px;
}
h2 {
  font-size: 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
th,
td {
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid color-mix(in srgb, var(--tin) 55%, transparent);
  text-align: left;
  vertical-align: middle;
  overflow-wrap: anywhere;
}
thead th,
.sample,
p {
  color: var(--pencil);
  font-weight: 400;
}
tbody th {
  width: 30%;
  font-weight: 600;
}
td:last-child {
  width: 200px;
}
fieldset {
  padding: 8px 0 4px;
  border: 0;
  font-size: 14px;
}
legend {
  padding: 0;
  font-weight: 600;
}
input {
  accent-color: var(--rim);
}
label {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
  min-height: 26px;
  cursor: pointer;
}
label .sample {
  overflow-wrap: anywhere;
}
p {
  padding-top: 4px;
  font-size: 14px;
}
select {
  width: 100%;
  min-height: 30px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (max-width: 760px) {
  section {
    max-height: 28dvh;
  }
  td:last-child {
    width: 140px;
  }
}
@media (pointer: coarse) {
  select,
  label {
    min-height: 40px;
  }
}
</style>
