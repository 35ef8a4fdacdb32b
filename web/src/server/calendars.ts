import { useQuery } from "@tanstack/vue-query";
import { useAsk } from "@/kit/ask";
import { useToasts } from "@/kit/toasts";
import { useActions } from "./actions";
import { ask, client, type Made, send } from "./client";
import type { components } from "./schema";
import { asSeen, saving } from "./seen";
import { useServer } from "./server";

export type Calendar = components["schemas"]["Calendar"];
export type Happening = components["schemas"]["Happening"];
type CalendarPatch = components["schemas"]["CalendarPatch"];

/** The calendars whose events are read. They are asked for again with what stands round every view. */
export const useCalendars = () =>
  useQuery({
    queryKey: ["overview", "calendars"],
    queryFn: () => ask(() => client.GET("/api/calendars")),
  });

/** The events of a day that are not over, and how many more there are. */
export async function happeningsOn(first: string): Promise<{ events: Happening[]; more: number }> {
  const days = await ask(() =>
    client.GET("/api/happenings", { params: { query: { first, days: 1 } } }),
  );
  return { events: days[0]?.events ?? [], more: days[0]?.moreEvents ?? 0 };
}

/** What can be done to calendars and with their events. */
export function useCalendarActions() {
  const actions = useActions();
  const asking = useAsk();
  const server = useServer();
  const toasts = useToasts();

  function took(made: Made) {
    server.refresh(made.change.revision);
    toasts.show({ text: made.change.says, undo: made.change.revision });
  }
  const at = (c: Calendar) => ({ path: { id: c.id } });

  /** Adds the calendar at an address, once it has been read; what it throws says why not. */
  async function add(address: string) {
    took(
      await send((header) =>
        client.POST("/api/calendars", { params: { header }, body: { address } }),
      ),
    );
  }
  /** Adds the calendar in a file. */
  async function addFile(file: File) {
    took(
      await send((header) =>
        client.POST("/api/calendars/file", {
          params: { query: { name: file.name }, header },
          headers: { "Content-Type": "application/octet-stream" },
          body: file as unknown as string,
          bodySerializer: (body) => body,
        }),
      ),
    );
  }
  const patch = (c: { id: string; revision: number }, body: CalendarPatch) =>
    asSeen(c, body, (header) =>
      client.PATCH("/api/calendars/{id}", {
        params: { path: { id: c.id }, header },
        headers: { "Content-Type": "application/merge-patch+json" },
        body,
      }),
    );
  const edit = (c: Calendar, body: CalendarPatch) =>
    actions.attempt(async () => took(await patch(c, body)));
  function rename(c: Calendar) {
    asking.ask({
      title: "Name and colour of the calendar",
      confirm: "Save",
      fields: [
        { key: "name", label: "Name", kind: "text", value: c.name },
        { key: "colour", label: "Colour", kind: "colour", value: c.colour },
      ],
      act: saving(c, async (seen, fields) =>
        took(await patch({ ...c, ...seen }, fields as CalendarPatch)),
      ),
    });
  }
  const remove = (c: Calendar) =>
    actions.attempt(async () =>
      took(
        await asSeen(c, {}, (header) =>
          client.DELETE("/api/calendars/{id}", { params: { ...at(c), header } }),
        ),
      ),
    );
  /** Asks its address now. */
  const refresh = (c: Calendar) =>
    actions.attempt(async () => {
      const now = await ask(() => client.POST("/api/calendars/{id}/refresh", { params: at(c) }));
      server.refresh();
      if (!now.problem) toasts.show({ text: `Read again: “${c.name}”` });
    });
  /** Makes a to-do of an event, planned for its day. */
  const putIn = (event: Happening, day: string) =>
    actions.attempt(async () =>
      actions.took(
        await send((header) =>
          client.POST("/api/happenings/todo", {
            params: { header },
            body: { calendar: event.calendar, uid: event.uid, day },
          }),
        ),
      ),
    );
  return { add, addFile, edit, rename, remove, refresh, putIn };
}
