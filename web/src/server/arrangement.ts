import { useRouter } from "vue-router";
import {
  client,
  type List,
  type Made,
  type Overview,
  type Person,
  type Section,
  send,
  type Shelf,
  type Tag,
} from "./client";
import type { components } from "./schema";
import { fullMoment } from "@/words/dates";
import { useActions } from "./actions";
import { useAsk } from "@/kit/ask";
import { asSeen, saving } from "./seen";
import { useServer } from "./server";
import { useToasts } from "@/kit/toasts";

type ListPatch = components["schemas"]["ListPatch"];
/** A row as it was seen. */
type Seen = { id: string; revision: number };
const patching = { headers: { "Content-Type": "application/merge-patch+json" } };

/** What can be done to shelves, lists, sections, tags and people. */
export function useArrangement() {
  const actions = useActions();
  const { ask } = useAsk();
  const router = useRouter();
  const server = useServer();
  const toasts = useToasts();

  function took(made: Made) {
    if (!made.change.revision) return;
    server.refresh(made.change.revision);
    toasts.show({ text: made.change.says, undo: made.change.revision });
  }
  const go = (work: () => Promise<Made>) => actions.attempt(async () => took(await work()));
  const at = (id: string) => ({ path: { id } });

  const patchList = (list: Seen, body: ListPatch) =>
    asSeen(list, body, (header) =>
      client.PATCH("/api/lists/{id}", { params: { ...at(list.id), header }, ...patching, body }),
    );
  const editList = (list: Seen, body: ListPatch) => go(() => patchList(list, body));

  function renameList(list: List) {
    ask({
      title: list.template ? "Rename the template" : "Name and colour",
      confirm: "Save",
      fields: [
        { key: "name", label: "Name", kind: "text", value: list.name },
        { key: "colour", label: "Colour", kind: "colour", value: list.colour },
      ],
      act: saving(list, async (seen, fields) =>
        took(await patchList({ ...list, ...seen }, fields as ListPatch)),
      ),
    });
  }
  const moveList = (list: Pick<List, "id">, body: components["schemas"]["ListMove"]) =>
    go(() =>
      send((header) =>
        client.POST("/api/lists/{id}/move", { params: { ...at(list.id), header }, body }),
      ),
    );
  const deleteList = (list: Seen) =>
    go(() =>
      asSeen(list, {}, (header) =>
        client.DELETE("/api/lists/{id}", { params: { ...at(list.id), header } }),
      ),
    );
  const onList = (list: Pick<List, "id">, what: "start-over" | "clear-done" | "restore") =>
    go(() =>
      send((header) =>
        client.POST(`/api/lists/{id}/${what}`, { params: { ...at(list.id), header } }),
      ),
    );

  function saveTemplate(list: List) {
    ask({
      title: "Save as a template",
      text: "Its sections and open to-dos are kept, to be poured out again as a new list.",
      confirm: "Save template",
      fields: [
        { key: "name", label: "Name of the template", kind: "text", value: list.name },
        {
          key: "from",
          label: "Dates count from",
          kind: "date",
          value: "",
          hint: "A day such as the opening. Left empty, it is the earliest date in the list.",
        },
      ],
      act: async ({ name = "", from }) => {
        const made = await send((header) =>
          client.POST("/api/lists/{id}/template", {
            params: { ...at(list.id), header },
            body: { name, from: from || null },
          }),
        );
        took(made);
        await router.push(`/list/${made.id}`);
      },
    });
  }
  function pour(template: List, overview: Overview) {
    ask({
      title: `Pour out “${template.name}”`,
      text: "Makes a list of it, with every date moved by the same distance.",
      confirm: "Pour out",
      fields: [
        { key: "name", label: "Name of the new list", kind: "text", value: template.name },
        {
          key: "on",
          label: "Dates count from",
          kind: "date",
          value: overview.today,
          hint: `This day takes the place of ${fullMoment(template.template ?? overview.today)}.`,
        },
        {
          key: "shelf",
          label: "On the shelf",
          kind: "choice",
          value: template.shelf,
          options: overview.shelves.map((s) => ({ value: s.id, name: s.name })),
        },
      ],
      act: async ({ name = "", on = "", shelf }) => {
        const made = await send((header) =>
          client.POST("/api/lists/{id}/pour", {
            params: { ...at(template.id), header },
            body: { name, on, shelf },
          }),
        );
        took(made);
        await router.push(`/list/${made.id}`);
      },
    });
  }

  const addShelf = (name: string) =>
    send((header) => client.POST("/api/shelves", { params: { header }, body: { name } }));
  const addList = (name: string, shelf?: string) =>
    send((header) =>
      client.POST("/api/lists", {
        params: { header },
        body: { name, ...(shelf ? { shelf } : {}) },
      }),
    );
  function renameShelf(shelf: Shelf) {
    ask({
      title: "Rename the shelf",
      confirm: "Save",
      fields: [{ key: "name", label: "Name", kind: "text", value: shelf.name }],
      act: saving(shelf, async (seen, { name = "" }) =>
        took(
          await asSeen(seen, { name }, (header) =>
            client.PATCH("/api/shelves/{id}", {
              params: { ...at(shelf.id), header },
              ...patching,
              body: { name },
            }),
          ),
        ),
      ),
    });
  }
  /** Says which hours the to-dos of a shelf take from now on. */
  const takeHours = (shelf: Shelf, hours: Shelf["hours"]) =>
    go(() =>
      asSeen(shelf, { hours }, (header) =>
        client.PATCH("/api/shelves/{id}", {
          params: { ...at(shelf.id), header },
          ...patching,
          body: { hours },
        }),
      ),
    );
  const moveShelf = (shelf: Pick<Shelf, "id">, body: components["schemas"]["Beside"]) =>
    go(() =>
      send((header) =>
        client.POST("/api/shelves/{id}/move", { params: { ...at(shelf.id), header }, body }),
      ),
    );
  const deleteShelf = (shelf: Seen) =>
    go(() =>
      asSeen(shelf, {}, (header) =>
        client.DELETE("/api/shelves/{id}", { params: { ...at(shelf.id), header } }),
      ),
    );
  const restoreShelf = (shelf: Pick<Shelf, "id">) =>
    go(() =>
      send((header) =>
        client.POST("/api/shelves/{id}/restore", { params: { ...at(shelf.id), header } }),
      ),
    );

  function addSection(list: Pick<List, "id">) {
    ask({
      title: "New section",
      text: "A titled stretch of the list.",
      confirm: "Add section",
      fields: [{ key: "name", label: "Name", kind: "text", value: "" }],
      act: async ({ name = "" }) =>
        took(
          await send((header) =>
            client.POST("/api/lists/{id}/sections", {
              params: { ...at(list.id), header },
              body: { name },
            }),
          ),
        ),
    });
  }
  function renameSection(section: Section) {
    ask({
      title: "Rename the section",
      confirm: "Save",
      fields: [{ key: "name", label: "Name", kind: "text", value: section.name }],
      act: saving(section, async (seen, { name = "" }) =>
        took(
          await asSeen(seen, { name }, (header) =>
            client.PATCH("/api/sections/{id}", {
              params: { ...at(section.id), header },
              ...patching,
              body: { name },
            }),
          ),
        ),
      ),
    });
  }
  const moveSection = (section: Pick<Section, "id">, body: components["schemas"]["Beside"]) =>
    go(() =>
      send((header) =>
        client.POST("/api/sections/{id}/move", { params: { ...at(section.id), header }, body }),
      ),
    );
  const deleteSection = (section: Seen, todos: boolean) =>
    go(() =>
      asSeen(section, {}, (header) =>
        client.DELETE("/api/sections/{id}", {
          params: { ...at(section.id), header, query: { todos } },
        }),
      ),
    );

  function editTag(tag: Tag) {
    ask({
      title: "Name and colour",
      text: "Every to-do that carries it shows the new name; tags nested under it move along.",
      confirm: "Save",
      fields: [
        {
          key: "name",
          label: "Name",
          kind: "text",
          value: tag.name,
          hint: "Nest it with a slash: work/meetings",
        },
        { key: "colour", label: "Colour", kind: "colour", value: tag.colour },
      ],
      act: saving(tag, async (seen, fields) =>
        took(
          await asSeen(seen, fields, (header) =>
            client.PATCH("/api/tags/{id}", {
              params: { ...at(tag.id), header },
              ...patching,
              body: fields as components["schemas"]["TagPatch"],
            }),
          ),
        ),
      ),
    });
  }
  function mergeTag(tag: Tag, overview: Overview) {
    const others = overview.tags.filter(
      (t) => t.id !== tag.id && !t.name.startsWith(`${tag.name}/`),
    );
    ask({
      title: `Merge “${tag.name}” into another tag`,
      text: "Whatever carries it carries the other instead, and this one goes.",
      confirm: "Merge",
      fields: [
        {
          key: "into",
          label: "The tag that stays",
          kind: "choice",
          value: others[0]?.id ?? "",
          options: others.map((t) => ({ value: t.id, name: t.name })),
        },
      ],
      act: async ({ into = "" }) => {
        took(
          await send((header) =>
            client.POST("/api/tags/{id}/merge", {
              params: { ...at(tag.id), header },
              body: { into },
            }),
          ),
        );
        await router.push(`/tag/${into}`);
      },
    });
  }
  const deleteTag = (tag: Seen) =>
    go(() =>
      asSeen(tag, {}, (header) =>
        client.DELETE("/api/tags/{id}", { params: { ...at(tag.id), header } }),
      ),
    );

  function editPerson(person?: Person) {
    ask({
      title: person ? person.name : "New person",
      confirm: "Save",
      fields: [
        { key: "name", label: "Name", kind: "text", value: person?.name ?? "" },
        { key: "email", label: "E-mail", kind: "text", value: person?.email ?? "" },
        { key: "phone", label: "Phone", kind: "text", value: person?.phone ?? "" },
        { key: "note", label: "Note", kind: "lines", value: person?.note ?? "" },
      ],
      act: person
        ? saving(person, async (seen, fields) =>
            took(
              await asSeen(seen, fields, (header) =>
                client.PATCH("/api/people/{id}", {
                  params: { ...at(person.id), header },
                  ...patching,
                  body: fields as components["schemas"]["PersonPatch"],
                }),
              ),
            ),
          )
        : async ({ name = "", email = "", phone = "", note = "" }) => {
            const body = { name, email, phone, note };
            const made = await send((header) =>
              client.POST("/api/people", { params: { header }, body }),
            );
            took(made);
            await router.push(`/person/${made.id}`);
          },
    });
  }
  const removePerson = (person: Seen) =>
    go(() =>
      asSeen(person, {}, (header) =>
        client.DELETE("/api/people/{id}", { params: { ...at(person.id), header } }),
      ),
    );

  return {
    took,
    editList,
    renameList,
    moveList,
    deleteList,
    onList,
    saveTemplate,
    pour,
    addShelf,
    addList,
    renameShelf,
    takeHours,
    moveShelf,
    deleteShelf,
    restoreShelf,
    addSection,
    renameSection,
    moveSection,
    deleteSection,
    editTag,
    mergeTag,
    deleteTag,
    editPerson,
    removePerson,
  };
}
