<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { ask, Away, client, type Definition, type OwnView } from "@/server/client";
import BuilderLooks from "./BuilderLooks.vue";
import FilterGroup from "./FilterGroup.vue";
import { type Line, newGroup, newTest, read } from "./tree";
import { useUnsaved } from "./unsaved";
import { useBuilder } from "./use-builder";
import { usePlaces } from "@/server/here";
import { useOverview } from "@/server/queries";
import { altered, Overtaken } from "@/server/seen";
import { useServer } from "@/server/server";
import { useViews } from "@/server/views";
import { totalWords, verdictOf } from "@/words/meaning";
import { rowFacts } from "@/words/row";
import { viewNames } from "@/words/names";

/** Where a view of one's own is built, with what it means and holds beside it. */
const route = useRoute();
const router = useRouter();
const server = useServer();
const views = useViews();
const { data: places } = usePlaces();
const { data: overview } = useOverview();
const {
  root,
  group,
  order,
  shape,
  urgentDays,
  meaning,
  fault,
  blamed,
  passes,
  definition,
  load,
  takeOffer,
  refresh,
} = useBuilder();

const editing = computed(() =>
  typeof route.params.own === "string" ? route.params.own : undefined,
);
const name = ref("");
const icon = ref<OwnView["icon"]>("eye");
const colour = ref<OwnView["colour"]>("sea");
const pinned = ref(false);
const counted = ref(true);
const reason = ref("");
const loaded = ref(false);
const nameField = useTemplateRef("nameField");
const looks = () => ({
  name: name.value,
  definition: definition.value,
  icon: icon.value,
  colour: colour.value,
  pinned: pinned.value,
  counted: counted.value,
});
/** What was read of the view that is edited, and in which state. */
const seen = ref<{ id: string; revision: number; looks: ReturnType<typeof looks> }>();
const unsaved = useUnsaved(
  () => route.fullPath,
  loaded,
  () => ({ ...looks(), seen: seen.value }),
);
/** What was taken up again from before the page was left. */
const resumed = ref(false);
function resume(left: ReturnType<typeof looks> & { seen?: typeof seen.value }) {
  seen.value = left.seen;
  load(left.definition);
  name.value = left.name;
  icon.value = left.icon;
  colour.value = left.colour;
  pinned.value = left.pinned;
  counted.value = left.counted;
  resumed.value = true;
}
async function anew() {
  unsaved.forget();
  await begin();
}

/** Asks some more beside all that is asked already. */
function narrow(lines: Line[]) {
  if (root.value.of === "all") root.value.lines.push(...lines);
  else root.value = newGroup("all", root.value, ...lines);
}
/** What is edited, copied or begun from: a view of one's own, one that ships, or a filter. */
async function begin() {
  if (!/^\/view\/(new|[^/]+\/edit)$/.test(route.path)) return; // it is being left
  const { from, own, filter, name: named } = route.query;
  const at = (id: string) => ({ params: { path: { id } } });
  /** There is a view already that the filter narrows. */
  let begun = false;
  loaded.value = false;
  resumed.value = false;
  seen.value = undefined;
  // One builder may follow another without leaving the page.
  load({ filter: { all: [] } });
  root.value = newGroup("all", newTest());
  [name.value, icon.value, colour.value, pinned.value, counted.value] = [
    "",
    "eye",
    "sea",
    false,
    true,
  ];
  const unfinished = unsaved.left();
  const left = editing.value && !unfinished?.seen ? undefined : unfinished;
  try {
    if (left) {
      resume(left);
    } else if (editing.value) {
      const kept = await ask(() => client.GET("/api/own-views/{id}", at(editing.value ?? "")));
      load(kept.definition);
      name.value = kept.name;
      if (kept.view) ({ icon: icon.value, colour: colour.value } = kept.view);
      pinned.value = kept.view?.pinned ?? false;
      counted.value = kept.view?.counted ?? false;
      const { id, revision = 0 } = kept.view ?? { id: editing.value };
      seen.value = { id, revision, looks: looks() };
    } else if (typeof own === "string") {
      load((await ask(() => client.GET("/api/own-views/{id}", at(own)))).definition);
      begun = true;
    } else if (typeof from === "string" && viewNames[from]) {
      begun = true;
      const shipped = await ask(() =>
        client.GET("/api/views/{view}/definition", { params: { path: { view: from as "today" } } }),
      );
      load(shipped.definition);
      name.value = `My ${viewNames[from]}`;
    }
    if (typeof filter === "string" && !left) {
      const d = JSON.parse(filter) as Definition;
      if (begun) narrow(read(d.filter).lines);
      else load(d);
    }
    if (typeof named === "string" && !left) name.value = named;
  } catch (e) {
    reason.value = e instanceof Away ? "The server is away." : (e as Error).message;
  }
  loaded.value = true;
  if (!editing.value) setTimeout(() => nameField.value?.focus());
}
watch(() => route.fullPath, begin, { immediate: true });
watch(
  () => overview.value?.revision,
  (now, before) => before !== undefined && now !== before && void refresh(),
);

/** The name and, after it, the sentence. */
const heading = computed(() => {
  const said = meaning.value?.sentence ?? "";
  const named = name.value.trim();
  return named ? `${named}: ${said.slice(0, 1).toLowerCase()}${said.slice(1)}` : said;
});
const never = computed(() => meaning.value?.verdict === "never");
const total = computed(() => meaning.value && totalWords(meaning.value));
const verdict = computed(() => meaning.value && verdictOf(meaning.value));

async function save() {
  reason.value = "";
  try {
    const made = seen.value
      ? await views.save(seen.value, altered(seen.value.looks, looks()))
      : await views.add(looks());
    unsaved.forget();
    await router.push(`/view/${made.id}`);
  } catch (e) {
    if (e instanceof Overtaken && seen.value) {
      seen.value = { ...seen.value, revision: e.row.revision };
      reason.value = `${e.message} Save again to set yours.`;
      return;
    }
    reason.value =
      e instanceof Away ? "The server is away. Nothing was saved." : (e as Error).message;
    if (!name.value.trim()) nameField.value?.focus();
  }
}
const facts = computed(() =>
  (meaning.value?.rows ?? []).map((row) => ({
    row,
    words: overview.value
      ? rowFacts(row, {
          group: { kind: "all", horizon: null },
          overview: overview.value,
          today: server.today,
        })
          .map((f) => f.text)
          .join(" · ")
      : "",
  })),
);
</script>

<template>
  <form v-if="overview && loaded" class="builder" @submit.prevent="save">
    <p class="kind">{{ editing ? "A view of your own" : "A new view of your own" }}</p>
    <p v-if="resumed" class="resumed">
      Taken up where you left it.
      <button type="button" class="offer" @click="anew">Begin anew</button>
    </p>
    <h1 aria-live="polite">{{ heading }}</h1>
    <datalist id="used-places">
      <option v-for="p in places" :key="p.name" :value="p.name" />
    </datalist>
    <div class="sides">
      <div class="form">
        <div class="named">
          <label for="view-name">Name</label>
          <input id="view-name" ref="nameField" v-model="name" class="box" maxlength="200" />
        </div>
        <FilterGroup
          v-model="root"
          :overview="overview"
          above=""
          :blamed="blamed"
          :passes="passes"
        />
        <div v-if="verdict" class="verdict" :class="{ bad: verdict.bad }" role="status">
          <strong>{{ verdict.head }}</strong> {{ verdict.says }}
          <template v-if="meaning?.offer">
            {{ meaning.offer.says }}
            <button type="button" class="offer" @click="takeOffer">Take that line out</button>
          </template>
        </div>
        <p v-else-if="meaning?.total === 0 && meaning.offer" class="verdict" role="status">
          Nothing matches now. {{ meaning.offer.says }}
          <button type="button" class="offer" @click="takeOffer">Take that line out</button>
        </p>
        <p v-if="fault" class="verdict bad" role="alert">{{ fault }}</p>

        <BuilderLooks
          v-model:shape="shape"
          v-model:group="group"
          v-model:order="order"
          v-model:urgent-days="urgentDays"
          v-model:icon="icon"
          v-model:colour="colour"
          v-model:pinned="pinned"
          v-model:counted="counted"
        />

        <p v-if="reason" class="verdict bad" role="alert">{{ reason }}</p>
        <footer>
          <button type="submit" class="btn main" :disabled="never">Save view</button>
          <router-link
            class="btn"
            :to="editing ? `/view/${editing}` : '/today'"
            @click="unsaved.forget()"
            >Cancel</router-link
          >
          <span class="total" aria-live="polite">{{ total }}</span>
        </footer>
      </div>
      <aside class="first" aria-label="What matches now">
        <h2>{{ total || "Looking…" }}</h2>
        <ul>
          <li v-for="f in facts" :key="f.row.todo.id">
            <span class="title">{{ f.row.todo.title }}</span>
            <span class="facts">{{ f.words }}</span>
          </li>
        </ul>
        <p v-if="meaning && meaning.total > facts.length" class="more">
          and {{ meaning.total - facts.length }} more
        </p>
      </aside>
    </div>
  </form>
</template>

<style scoped>
.builder {
  padding: 18px 24px 60px 30px;
}
.kind {
  color: var(--pencil);
  font-size: 14px;
}
h1 {
  max-width: 880px;
  min-height: 30px;
  margin: 2px 0 14px;
  font-size: 20px;
  font-weight: 500;
  line-height: 28px;
  overflow-wrap: anywhere;
}
.sides {
  display: grid;
  grid-template-columns: minmax(0, 720px) minmax(220px, 300px);
  gap: 28px;
}
.resumed {
  color: var(--pencil);
}
.named {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 12px;
}
.verdict {
  margin-top: 14px;
  padding: 10px 12px;
  border-left: 3px solid var(--ochre);
  background: var(--wash);
}
.verdict.bad {
  border-left-color: var(--madder);
  background: color-mix(in srgb, var(--madder) 7%, var(--glaze));
}
.verdict strong {
  font-weight: 500;
}
.verdict.bad strong {
  color: var(--madder);
}
.offer {
  min-height: 24px;
  margin-left: 4px;
  color: var(--rim);
  font-weight: 700;
  cursor: pointer;
}
.offer:hover {
  text-decoration: underline;
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
footer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 18px;
}
.total {
  margin-left: auto;
  color: var(--pencil);
}
.first h2 {
  margin-bottom: 8px;
  font-size: 16px;
}
.first ul {
  list-style: none;
}
.first li {
  padding: 6px 0;
  border-bottom: 1px solid var(--tin);
}
.title {
  display: block;
  overflow-wrap: anywhere;
}
.facts,
.more {
  color: var(--pencil);
  font-size: 13px;
}
.more {
  margin-top: 8px;
}
@media (max-width: 1080px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 760px) {
  .builder {
    padding: 14px 16px 60px;
  }
}
</style>
