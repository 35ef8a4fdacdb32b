<script setup lang="ts">
import { ref, useTemplateRef } from "vue";
import { type FileFormat, exportHref, fileFormats } from "@/server/files";
import { useOverview } from "@/server/queries";
import { useCurrent } from "@/state/current";

/** Files in and out. */
const current = useCurrent();
const { data: overview } = useOverview();
const picker = useTemplateRef("picker");
const format = ref<FileFormat>("ics");
const list = ref("");
function picked(e: Event) {
  const input = e.target as HTMLInputElement;
  current.bringIn([...(input.files ?? [])]);
  input.value = "";
}
</script>

<template>
  <section id="files" aria-labelledby="files-head">
    <h2 id="files-head">Files in and out</h2>
    <div class="part">
      <div class="about">
        <span class="label">Bring to-dos in</span>
        <p>
          From iCalendar (.ics), JSCalendar (.json), CSV or a task list in Markdown (.md), whatever
          wrote it, or everything of another installation (.zip) while there is nothing here. You
          see what would become of each before anything is kept, and it is one change that can be
          undone. Files can also be dropped anywhere on the page.
        </p>
      </div>
      <button class="btn" aria-haspopup="dialog" @click="picker?.click()">From files…</button>
      <input
        ref="picker"
        type="file"
        multiple
        accept=".ics,.json,.csv,.tsv,.txt,.md,.zip,text/calendar,text/csv,text/markdown"
        hidden
        @change="picked"
      />
    </div>
    <div class="part">
      <div class="about">
        <span class="label">Take to-dos out</span>
        <p>
          iCalendar and JSCalendar are for other programs, CSV for spreadsheets, Markdown for
          people. Brought in again here, Markdown makes new to-dos and the others change those they
          came from.
        </p>
      </div>
      <div class="out">
        <select v-model="list" aria-label="Which to-dos">
          <option value="">All lists and the Cup</option>
          <option value="cup">The Cup</option>
          <optgroup v-for="shelf in overview?.shelves" :key="shelf.id" :label="shelf.name">
            <option v-for="l in shelf.lists" :key="l.id" :value="l.id">{{ l.name }}</option>
          </optgroup>
        </select>
        <select v-model="format" aria-label="As">
          <option v-for="f in fileFormats" :key="f.name" :value="f.name">{{ f.says }}</option>
        </select>
        <a class="btn" :href="exportHref(format, list ? { list } : {})" download>Save the file</a>
      </div>
    </div>
    <div id="everything" class="part">
      <div class="about">
        <span class="label">Take everything out</span>
        <p>
          Every to-do with its attached files, and lists, tags, people, places, views, settings and
          what was done, as one ZIP. An empty installation becomes the same from it.
        </p>
      </div>
      <a class="btn link" href="/api/everything" download>Save everything</a>
    </div>
  </section>
</template>

<style scoped src="./part.css"></style>
<style scoped>
.about {
  max-width: 640px;
}
.out {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.out .btn,
.link {
  display: inline-flex;
  align-items: center;
}
select {
  max-width: 200px;
  min-height: 32px;
  padding: 0 6px;
  border: 1px solid var(--tin);
  border-radius: var(--corner);
  background: var(--glaze);
}
@media (pointer: coarse) {
  select,
  .btn {
    min-height: 40px;
  }
}
</style>
