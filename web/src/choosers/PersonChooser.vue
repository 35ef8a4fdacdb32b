<script setup lang="ts">
import { computed, ref, watch } from "vue";
import { client, type Involved, type Overview, send } from "@/server/client";
import { useActions } from "@/server/actions";
import { roleWords } from "@/words/fields";
import OptionFinder from "@/kit/OptionFinder.vue";

/** Chooses who to-dos are about, and what they are to them. */
const props = defineProps<{
  overview: Overview;
  /** Who it is now; undefined of many. */
  person?: Involved | null;
}>();
const emit = defineEmits<{ choose: [person: Involved | null] }>();
const actions = useActions();
const query = ref("");
const roles = Object.keys(roleWords) as Involved["role"][];
const role = ref<Involved["role"]>(props.person?.role ?? "ask");

/** A role may be said with the name: "waiting on Ines". */
const spoken = computed(() => {
  const said = query.value.trim();
  const word = roles.find((r) => said.toLowerCase().startsWith(`${r} `));
  return { role: word, name: word ? said.slice(word.length).trim() : said };
});
watch(spoken, ({ role: said }) => said && (role.value = said));

const found = computed(() => {
  const wanted = spoken.value.name.toLowerCase();
  const hits: { key: string; name: string; make?: boolean; nobody?: boolean }[] =
    props.overview.people
      .filter((p) => p.name.toLowerCase().includes(wanted))
      .map((p) => ({ key: p.id, name: p.name }));
  if (wanted && !props.overview.people.some((p) => p.name.toLowerCase() === wanted))
    hits.push({ key: "make", name: spoken.value.name, make: true });
  // Last, so that Enter behind a name takes nobody away.
  if (props.person !== null) hits.push({ key: "nobody", name: "Nobody", nobody: true });
  return hits;
});

/** It begins where the to-do is, or of many nowhere, so that Enter alone changes nothing. */
const begin = Math.max(
  props.person === undefined ? -1 : 0,
  found.value.findIndex((o) => o.key === props.person?.id),
);

/** Another role of the person who is there already. */
function setRole(to: Involved["role"]) {
  role.value = to;
  const { person } = props;
  if (person && person.role !== to) emit("choose", { id: person.id, role: to });
}

async function pick(option: { key: string; name: string; make?: boolean; nobody?: boolean }) {
  if (option.nobody) return emit("choose", null);
  let id = option.key;
  if (option.make) {
    const made = await actions.attempt(() =>
      send((header) =>
        client.POST("/api/people", { params: { header }, body: { name: option.name } }),
      ),
    );
    if (!made) return;
    id = made.id;
  }
  emit("choose", { id, role: role.value });
}
</script>

<template>
  <div>
    <div class="roles" role="group" aria-label="What they are to it">
      <button
        v-for="(word, r) in roleWords"
        :key="r"
        class="btn"
        :aria-pressed="role === r"
        @click="setRole(r)"
      >
        {{ word }}
      </button>
    </div>
    <OptionFinder
      v-model="query"
      :options="found"
      :begin="begin"
      what="Person"
      placeholder="Name of a person"
      :chosen="(o) => o.key === person?.id"
      @pick="pick"
    >
      <template #default="{ option }">
        <template v-if="option.nobody">Nobody</template>
        <template v-else-if="option.make">
          {{ roleWords[role] }} “{{ option.name }}”, a new person
        </template>
        <template v-else>{{ spoken.role ? `${roleWords[role]} ` : "" }}{{ option.name }}</template>
      </template>
    </OptionFinder>
  </div>
</template>

<style scoped>
.roles {
  display: flex;
  gap: 4px;
  padding: 8px 8px 0;
}
.roles [aria-pressed="true"] {
  background: var(--rim);
  color: var(--glaze);
}
</style>
