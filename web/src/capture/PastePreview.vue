<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from "vue";
import { useRouter } from "vue-router";
import { ask, client, type Line, type Overview, send } from "@/server/client";
import { useActions } from "@/server/actions";
import { useCurrent } from "@/state/current";
import { useServer } from "@/server/server";
import { useToasts } from "@/kit/toasts";
import { chipLabels } from "@/words/fields";
import LayerDialog from "@/kit/LayerDialog.vue";

/** Several lines at once, shown as the tree they would become. */
defineProps<{ overview: Overview }>();
const current = useCurrent();
const actions = useActions();
const server = useServer();
const toasts = useToasts();
const router = useRouter();
const dialog = useTemplateRef("dialog");
const text = ref(current.pasted ?? "");
const list = ref("");
const lines = ref<Line[]>([]);
const reason = ref("");
const busy = ref(false);
let asked = 0;

const faults = computed(() => lines.value.filter((l) => l.reading.problems.length > 0).length);
const body = computed(() => ({ text: text.value, list: list.value || null }));

async function read() {
  const nth = ++asked;
  try {
    const answer = await ask(() => client.POST("/api/lines", { body: body.value }));
    if (nth !== asked) return;
    lines.value = answer.lines;
    reason.value = "";
  } catch (e) {
    if (nth !== asked) return;
    lines.value = [];
    reason.value = e instanceof Error ? e.message : "The lines could not be read.";
  }
}
watch(body, () => void read(), { immediate: true });

async function putIn() {
  busy.value = true;
  try {
    const done = await send((header) =>
      client.POST("/api/lines/todos", {
        params: { header },
        body: { ...body.value, ...server.wall() },
      }),
    );
    server.refresh(done.change.revision);
    toasts.show({ text: done.change.says, undo: done.change.revision });
    current.pasted = undefined;
    await router.push(list.value ? `/list/${list.value}` : "/cup");
  } catch (e) {
    actions.trouble(e);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <LayerDialog
    ref="dialog"
    layer="paste"
    class="paste"
    labelledby="paste-title"
    @close="current.pasted = undefined"
  >
    <header>
      <h1 id="paste-title">Several at once</h1>
      <p>
        Each line is read as a sentence. Two spaces or a tab make a subtask; a line
        <code># Heading</code> makes a section of a list, and in the Cup holds what stands under it.
      </p>
    </header>
    <div class="columns">
      <textarea v-model="text" autofocus aria-label="The lines" spellcheck="false" />
      <div class="tree" role="group" aria-label="What they become">
        <p v-if="reason" class="wrong" role="alert">{{ reason }}</p>
        <ul>
          <li
            v-for="line in lines"
            :key="line.number"
            :class="{ section: line.section, done: line.done }"
            :style="{ paddingLeft: `${line.depth * 20}px` }"
            :data-depth="line.depth"
          >
            <span class="box" aria-hidden="true">{{ line.done ? "✓" : "" }}</span>
            <span class="what">
              <span class="title">{{ line.reading.title || "…" }}</span>
              <span
                v-for="c in line.reading.chips"
                :key="c.words"
                class="fact"
                :class="{ wrong: c.problem }"
                ><span class="label">{{ chipLabels[c.field] }}</span>
                {{ c.problem ? c.words : c.value }}</span
              >
              <span v-for="p in line.reading.problems" :key="p.reason" class="wrong why">{{
                p.reason
              }}</span>
            </span>
          </li>
        </ul>
      </div>
    </div>
    <footer>
      <label>
        into
        <select v-model="list" aria-label="Into">
          <option value="">The Cup</option>
          <optgroup v-for="shelf in overview.shelves" :key="shelf.id" :label="shelf.name">
            <option v-for="l in shelf.lists" :key="l.id" :value="l.id">{{ l.name }}</option>
          </optgroup>
        </select>
      </label>
      <span class="grow" :class="{ wrong: faults }" role="status">{{
        faults
          ? `${faults} ${faults === 1 ? "line cannot" : "lines cannot"} be put in as it stands`
          : ""
      }}</span>
      <button class="btn quiet" @click="dialog?.close()">Cancel</button>
      <button class="btn main" :disabled="busy || faults > 0 || !lines.length" @click="putIn">
        {{ lines.length === 1 ? "Put in 1 to-do" : `Put in ${lines.length} to-dos` }}
      </button>
    </footer>
  </LayerDialog>
</template>

<style scoped>
.paste {
  width: min(900px, calc(100vw - 24px));
  max-width: none;
  max-height: calc(100dvh - 48px);
  margin: auto;
  padding: 18px 20px;
}
h1 {
  font-size: 20px;
  line-height: 28px;
}
header p,
.label {
  color: var(--pencil);
}
.columns {
  display: grid;
  grid-template-columns: 2fr 3fr;
  gap: 12px;
  height: min(420px, 56dvh);
  margin: 12px 0;
}
textarea,
.tree {
  overflow: auto;
  padding: 8px 10px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
}
textarea {
  resize: none;
  white-space: pre;
  tab-size: 2;
}
ul {
  list-style: none;
}
li {
  display: flex;
  gap: 8px;
  padding-block: 4px;
}
.box {
  flex: none;
  width: 18px;
  height: 18px;
  margin-top: 1px;
  border: 2px solid var(--rim);
  border-radius: 4px;
  font-size: 12px;
  line-height: 14px;
  text-align: center;
}
.section .box {
  border-style: dashed;
}
.section .title {
  font-family: var(--slab);
  font-weight: 600;
}
.done .box {
  background: var(--rim);
  color: var(--glaze);
}
.done .title {
  color: var(--pencil);
  text-decoration: line-through;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  min-width: 0;
}
.fact {
  font-size: 14px;
}
.label {
  font-size: 13px;
}
.wrong {
  color: var(--madder);
}
.why {
  flex-basis: 100%;
  font-size: 14px;
  font-weight: 600;
}
footer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.grow {
  flex: 1;
}
select {
  height: 30px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (max-width: 760px) {
  .columns {
    grid-template-columns: 1fr;
    grid-template-rows: 1fr 2fr;
    height: 64dvh;
  }
}
</style>
