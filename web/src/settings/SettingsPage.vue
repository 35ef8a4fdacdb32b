<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed, nextTick, onMounted, watch } from "vue";
import { useRoute } from "vue-router";
import { play } from "@/kit/sound";
import { ask, client } from "@/server/client";
import { useOverview } from "@/server/queries";
import { type SettingWords, settingGroups, valueWords } from "@/words/settings";
import { useSettings } from "@/server/choose";
import { inForce } from "@/server/in-force";
import CalendarsPart from "./CalendarsPart.vue";
import CopiesPart from "./CopiesPart.vue";
import FilesPart from "./FilesPart.vue";
import OpeningPart from "./OpeningPart.vue";
import PlacesPart from "./PlacesPart.vue";
import RemindersPart from "./RemindersPart.vue";
import SettingControl from "./SettingControl.vue";

/** What an account may choose; each is kept as it is changed. */
const { choose } = useSettings();
const { data: overview } = useOverview();
const { data } = useQuery({
  queryKey: computed(() => ["settings", overview.value?.revision]),
  queryFn: () => ask(() => client.GET("/api/settings")),
  placeholderData: (before) => before,
});
const of = (s: SettingWords) => data.value?.settings.find((row) => row.name === s.name);
/** What the person chose; that is in force, unless a flag of this run says otherwise. */
const chosen = (s: SettingWords) => of(s)?.chosen ?? inForce[s.name];

const route = useRoute();
// The part that an address points to is there once the page is, and its heights are what they stay. The control
// of a setting gets the focus.
async function show() {
  await nextTick();
  const to = route.hash && document.getElementById(route.hash.slice(1));
  if (!to) return;
  to.scrollIntoView();
  to.closest(".part")?.querySelector<HTMLElement>("select, input, button:not(.back)")?.focus();
}
onMounted(show);
watch(() => route.hash, show);

function chose(s: SettingWords, value: string) {
  if (s.name === "sound") void play(value);
  void choose({ [s.name]: value });
}

function words(s: SettingWords, value: string): string {
  if (value === "machine" && data.value) return `the machine’s (${data.value.machineZone})`;
  return valueWords(s, value);
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Settings</h1>
      <p>Kept as you change them, the same in every window.</p>
    </header>
    <nav aria-label="Parts of the settings">
      <a v-for="g in settingGroups" :key="g.at" :href="`#${g.at}`">{{ g.name }}</a>
      <a href="#files">Files in and out</a>
      <a href="#places">Places</a>
      <a href="#calendars">Calendars</a>
    </nav>
    <section v-for="g in settingGroups" :id="g.at" :key="g.at" :aria-labelledby="`${g.at}-head`">
      <h2 :id="`${g.at}-head`">{{ g.name }}</h2>
      <div v-for="s in g.settings" :key="s.name" class="part" :data-setting="s.name">
        <div class="about">
          <span :id="`label-${s.name}`" class="label">{{ s.label }}</span>
          <p :id="`does-${s.name}`">
            {{ s.does }}
            <template v-if="of(s)">
              By default: {{ words(s, of(s)!.default) }}.
              <button
                v-if="chosen(s) !== of(s)!.default"
                class="back"
                @click="choose({ [s.name]: null })"
              >
                Set it back
              </button>
            </template>
          </p>
          <p v-if="of(s)?.chosen !== undefined" class="fixed">
            This run was started with {{ words(s, of(s)!.value) }}. What you choose here holds when
            it is started without that.
          </p>
        </div>
        <SettingControl :setting="s" :value="chosen(s)" @choose="(value) => chose(s, value)" />
      </div>
      <OpeningPart v-if="g.at === 'look' && overview" :overview="overview" />
      <RemindersPart v-if="g.at === 'reminders'" />
      <CopiesPart v-if="g.at === 'copies'" />
    </section>
    <FilesPart />
    <PlacesPart />
    <CalendarsPart />
  </div>
</template>

<style scoped src="./part.css"></style>
<style scoped>
.page {
  max-width: 860px;
  padding: 16px 20px 64px 30px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
  margin-bottom: 8px;
}
header p {
  font-size: inherit;
  line-height: inherit;
}
h1 {
  font-size: 24px;
  line-height: 32px;
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 6px;
}
nav a {
  padding: 4px 0;
  color: var(--rim);
}
.back {
  min-height: 24px;
  color: var(--rim);
  text-decoration: underline;
  cursor: pointer;
}
.about .fixed {
  margin-top: 4px;
  color: var(--copper);
}
@media (max-width: 760px) {
  .page {
    padding-left: 16px;
  }
}
@media (pointer: coarse) {
  nav a,
  .back {
    display: inline-flex;
    align-items: center;
    min-height: 40px;
  }
  /* Within a sentence, whose lines stay as near as they were. */
  .back {
    margin: -10px 0;
  }
}
</style>
