<script setup lang="ts">
import { useEventListener, useMediaQuery } from "@vueuse/core";
import { computed, defineAsyncComponent, onMounted, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { Away } from "@/server/client";
import RingLedge from "@/bell/RingLedge.vue";
import CaptureLine from "@/capture/CaptureLine.vue";
import IndexPane from "@/index/IndexPane.vue";
import RailStrip from "@/rail/RailStrip.vue";
import SheetState from "@/kit/SheetState.vue";
import MessageLine from "./MessageLine.vue";
import TopBar from "./TopBar.vue";
import { useAsk } from "@/kit/ask";
import { rowElement, useCurrent } from "@/state/current";
import { useAppKeys } from "./app-keys";
import { useEarlyKeys } from "@/kit/early-keys";
import { inLayer } from "@/kit/layers";
import { useMenu } from "@/kit/menu";
import { useLook } from "@/state/look";
import { usePointerRest } from "@/kit/pointer-rest";
import { usePrinting } from "@/kit/printing";
import { useToasts } from "@/kit/toasts";
import { useSteadyPress } from "@/kit/steady-press";
import { bringsIn } from "@/server/files";
import { noTodosWords } from "@/words/files";
import { useOverview } from "@/server/queries";
import { useServer } from "@/server/server";
import { useSettings } from "@/server/choose";

// Loaded after the first view, and before they are asked for.
const later = {
  chooser: () => import("@/choosers/ChooserHost.vue"),
  help: () => import("./KeysHelp.vue"),
  slip: () => import("@/slip/SlipHost.vue"),
  files: () => import("@/settings/ImportPreview.vue"),
  paste: () => import("@/capture/PastePreview.vue"),
  menu: () => import("./MenuHost.vue"),
  ask: () => import("./AskHost.vue"),
  event: () => import("@/choosers/EventPanel.vue"),
  room: () => import("@/sheet/MakeRoom.vue"),
  finder: () => import("./GoFinder.vue"),
};
const ChooserHost = defineAsyncComponent(later.chooser);
const KeysHelp = defineAsyncComponent(later.help);
const SlipHost = defineAsyncComponent(later.slip);
const PastePreview = defineAsyncComponent(later.paste);
const ImportPreview = defineAsyncComponent(later.files);
const MenuHost = defineAsyncComponent(later.menu);
const EventPanel = defineAsyncComponent(later.event);
const AskHost = defineAsyncComponent(later.ask);
const GoFinder = defineAsyncComponent(later.finder);
const MakeRoom = defineAsyncComponent(later.room);

const route = useRoute();
const router = useRouter();
const server = useServer();
const current = useCurrent();
const asking = useAsk();
const toasts = useToasts();
const menus = useMenu();
useLook();
usePrinting();
usePointerRest();
useSteadyPress();
// Here, and not in what opens: that may be loading still. A question that is only to be
// answered is first to be seen.
useEarlyKeys(
  () =>
    current.chooser ??
    menus.menu ??
    current.event ??
    current.incoming[0] ??
    (current.finding || asking.question?.fields.length),
  inLayer,
);
const narrow = useMediaQuery("(max-width: 760px)");
const { data: overview, error, refetch } = useOverview();
const settings = useSettings();
const begun = watch(overview, (o) => {
  if (!o) return;
  begun();
  void settings.begin(o);
});
/** Files of to-dos that are dropped where nothing else takes them. */
useEventListener(document, "dragover", (e) => {
  if (e.dataTransfer?.types.includes("Files")) e.preventDefault();
});
useEventListener(document, "drop", (e) => {
  const files = [...(e.dataTransfer?.files ?? [])];
  if (!files.length || e.defaultPrevented) return;
  e.preventDefault(); // or the browser would leave the page for them
  const others = files.filter((file) => !bringsIn(file.name));
  if (others.length) toasts.show({ text: noTodosWords(others.map((file) => file.name)) });
  current.bringIn(files.filter((file) => bringsIn(file.name)));
});
const slip = computed(() => (typeof route.query.slip === "string" ? route.query.slip : undefined));

onMounted(() => {
  server.start();
  setTimeout(() => void Promise.all(Object.values(later).map((load) => load())), 500);
});
watch(
  () => route.fullPath,
  () => (current.index = false),
);

async function closeSlip() {
  const id = slip.value;
  await router.replace({ ...route, query: { ...route.query, slip: undefined } });
  rowElement(id)?.focus();
}
useAppKeys(overview, () => {
  if (slip.value) void closeSlip();
  else if (current.index) current.index = false;
  else return false;
  return true;
});
</script>

<template>
  <v-app>
    <div class="house" :class="{ 'with-slip': slip }">
      <TopBar :narrow="narrow" :overview="overview" @index="current.index = !current.index" />
      <p v-if="server.away" class="away" role="alert">
        The server is away. What you see may be old; nothing can be changed until it is back.
      </p>
      <RingLedge v-if="narrow && overview" :today="overview.today" />
      <template v-if="overview">
        <!-- The week is the rail opened: its cups take its place. -->
        <RailStrip v-if="route.name !== 'week'" :overview="overview" />
        <div class="body">
          <div v-if="!narrow || current.index" class="index-frame">
            <IndexPane :overview="overview" />
          </div>
          <div class="column">
            <RingLedge v-if="!narrow" :today="overview.today" />
            <main
              class="sheet"
              :inert="narrow && !current.lifting && (current.index || slip !== undefined)"
            >
              <router-view />
            </main>
            <MessageLine v-if="!narrow" />
          </div>
          <div v-if="slip" class="slip-frame">
            <SlipHost :id="slip" :overview="overview" @close="closeSlip" />
          </div>
        </div>
        <ChooserHost v-if="current.chooser" :overview="overview" />
      </template>
      <main v-else class="alone">
        <SheetState
          v-if="error"
          :title="error instanceof Away ? 'The server is away' : 'Tin Cup could not be read'"
          :text="
            error instanceof Away
              ? 'Start it with tincup serve; this page goes on by itself when it answers.'
              : error.message
          "
        >
          <button class="btn" @click="refetch()">Try again</button>
        </SheetState>
        <p v-else class="opening" role="status">Opening…</p>
      </main>
      <MessageLine v-if="narrow || !overview" />
      <footer v-if="narrow && !slip" class="thumb">
        <CaptureLine :overview="overview" />
      </footer>
    </div>
    <GoFinder v-if="current.finding && overview" :overview="overview" />
    <KeysHelp v-if="current.helping" />
    <PastePreview v-if="current.pasted !== undefined && overview" :overview="overview" />
    <ImportPreview
      v-if="current.incoming[0] && overview"
      :key="current.incoming[0].nth"
      :overview="overview"
      :incoming="current.incoming[0]"
    />
    <MenuHost v-if="menus.menu" :key="menus.menu.label" :menu="menus.menu" />
    <AskHost v-if="asking.question" :key="asking.question.title" :question="asking.question" />
    <EventPanel v-if="current.event && overview" :open="current.event" :today="overview.today" />
    <MakeRoom
      v-if="current.makingRoom && overview"
      :making="current.makingRoom"
      :overview="overview"
    />
  </v-app>
</template>

<style scoped>
.house {
  display: flex;
  flex-direction: column;
  height: 100dvh;
}
.away {
  padding: 6px 20px;
  background: var(--madder);
  color: var(--glaze);
  font-weight: 600;
}
.body {
  position: relative;
  display: grid;
  flex: 1;
  grid-template-columns: 208px minmax(0, 1fr);
  min-height: 0;
}
.with-slip .body {
  grid-template-columns: 208px minmax(0, 1fr) 344px;
}
.index-frame {
  min-height: 0;
  border-right: 1px solid var(--tin);
}
.column {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.sheet {
  flex: 1;
  min-width: 0;
  min-height: 0;
  overflow-y: auto;
  background: var(--glaze);
}
.slip-frame {
  min-height: 0;
  border-left: 2px solid var(--rim);
  background: var(--enamel);
}
.alone {
  flex: 1;
  background: var(--glaze);
}
.opening {
  margin: 80px;
  color: var(--pencil);
  text-align: center;
  animation: appear 0s 300ms both;
}
@keyframes appear {
  from {
    visibility: hidden;
  }
}
.thumb {
  padding: 8px;
  border-top: 2px solid var(--rim);
  background: var(--enamel);
}
@media (max-width: 1040px) {
  .with-slip .body {
    grid-template-columns: 180px minmax(0, 1fr) 320px;
  }
}
@media (max-width: 760px) {
  .body,
  .with-slip .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .index-frame,
  .slip-frame {
    position: absolute;
    z-index: 10;
    inset: 0;
    border: 0;
    background: var(--enamel);
  }
}
</style>
