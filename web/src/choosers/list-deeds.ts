import { useRouter } from "vue-router";
import { useAsk } from "@/kit/ask";
import { useCurrent } from "@/state/current";
import { shortDay } from "@/words/dates";
import { useActions } from "@/server/actions";
import { useArrangement } from "@/server/arrangement";
import { client, type List, type Person, send, type Shelf } from "@/server/client";
import { asSeen, saving } from "@/server/seen";
import { useServer } from "@/server/server";
import type { components } from "@/server/schema";

type Rest = components["schemas"]["Finishing"]["rest"];

const rests: { value: Rest; name: string }[] = [
  { value: "stay", name: "They stay in it as they are" },
  { value: "complete", name: "They are done" },
  { value: "cancel", name: "They are cancelled" },
  { value: "cup", name: "They go to the Cup" },
];

/** Deeds that are about a list as a whole: it is made, given a due, finished and duplicated. */
export function useListDeeds() {
  const actions = useActions();
  const arrangement = useArrangement();
  const { ask } = useAsk();
  const current = useCurrent();
  const router = useRouter();
  const server = useServer();
  const path = (id: string) => ({ path: { id } });

  /** Asks for the name of a new list, and goes to it. */
  function begin(shelves: Shelf[], shelf = shelves[0]?.id ?? "") {
    ask({
      title: "New list",
      confirm: "Make it",
      fields: [
        { key: "name", label: "Name", kind: "text", value: "" },
        {
          key: "shelf",
          label: "On the shelf",
          kind: "choice",
          value: shelf,
          options: shelves.map((s) => ({ value: s.id, name: s.name })),
        },
      ],
      act: async ({ name = "", shelf: on }) => {
        const made = await arrangement.addList(name, on);
        current.adding = { row: made.id, inside: true }; // the cursor goes into its first row
        await router.push(`/list/${made.id}`);
        arrangement.took(made);
      },
    });
  }

  /** Asks for the day by which a list is to be done, what is true then, and with whom it is done. */
  function setDue(list: List, people: Person[]) {
    const { due = "", outcome = "", person = "" } = list;
    ask({
      title: `“${list.name}” as a project`,
      confirm: "Save",
      fields: [
        {
          key: "due",
          label: "Due",
          kind: "date",
          value: due,
          hint: "The day by which all of it is to be done. Left empty, it has none.",
        },
        ...(due && list.open
          ? [
              {
                key: "shift",
                label: "Where the due moves, the dates of its to-dos",
                kind: "choice" as const,
                value: "no",
                options: [
                  { value: "no", name: "stay as they are" },
                  { value: "yes", name: "move along, but those of repeats" },
                ],
              },
            ]
          : []),
        {
          key: "outcome",
          label: "What one will see then",
          kind: "text",
          value: outcome,
          hint: "A sentence that is true when it is done: The lamps hang.",
        },
        ...(people.length
          ? [
              {
                key: "person",
                label: "With",
                kind: "choice" as const,
                value: person,
                options: [
                  { value: "", name: "nobody in particular" },
                  ...people.map((p) => ({ value: p.id, name: p.name })),
                ],
                hint: "What is put in is to be asked of them, unless it says another.",
              },
            ]
          : []),
      ],
      act: saving(list, async (seen, fields) => {
        const body = {
          ...("person" in fields && { person: fields.person || null }),
          ...("due" in fields && {
            due: fields.due || null,
            ...(fields.shift === "yes" && { shift: true }),
          }),
          ...("outcome" in fields && { outcome: fields.outcome || null }),
        };
        if (!Object.keys(body).length) return;
        arrangement.took(
          await asSeen({ ...list, ...seen }, body, (header) =>
            client.PATCH("/api/lists/{id}", {
              params: { ...path(list.id), header },
              headers: { "Content-Type": "application/merge-patch+json" },
              body,
            }),
          ),
        );
      }),
    });
  }

  /** Asks what becomes of what is open in a list, and archives it. */
  function finish(list: List) {
    const { open, progress, due } = list;
    const done = progress ? `${progress.done} of ${progress.total} done. ` : "";
    const when = due ? `It is due ${shortDay(due, server.today)}. ` : "";
    ask({
      title: `Finish “${list.name}”?`,
      text: `${done}${when}It is archived: out of the index and of all views, and can be brought back.`,
      confirm: "Finish it",
      fields: open
        ? [
            {
              key: "rest",
              label: open === 1 ? "One to-do is still open" : `${open} to-dos are still open`,
              kind: "choice",
              value: "stay",
              options: rests,
            },
          ]
        : [],
      act: async ({ rest = "stay" }) =>
        arrangement.took(
          await send((header) =>
            client.POST("/api/lists/{id}/finish", {
              params: { ...path(list.id), header },
              body: { rest: rest as Rest },
            }),
          ),
        ),
    });
  }

  const duplicate = (list: List) =>
    actions.attempt(async () => {
      const made = await send((header) =>
        client.POST("/api/lists/{id}/duplicate", { params: { ...path(list.id), header } }),
      );
      arrangement.took(made);
      await router.push(`/list/${made.id}`);
    });

  return { begin, setDue, finish, duplicate };
}
