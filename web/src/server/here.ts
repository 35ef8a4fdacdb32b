import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { useLocalStorage } from "@vueuse/core";
import type { Fix } from "@/kit/position";
import { useToasts } from "@/kit/toasts";
import { own } from "./account";
import { useActions } from "./actions";
import { ask, client, type Made, send } from "./client";
import type { components } from "./schema";
import { asSeen } from "./seen";
import { useServer } from "./server";

export type Place = components["schemas"]["Place"];
export type PlacePatch = components["schemas"]["PlacePatch"];

/** Every place, the most used first. They are asked for again with what stands round every view. */
export const usePlaces = () =>
  useQuery({
    queryKey: ["overview", "places"],
    queryFn: () => ask(() => client.GET("/api/places")),
    staleTime: 0,
  });

/** At which places the person is, and whether a reminder waits for that to change. */
export const useHere = () =>
  useQuery({
    queryKey: ["here"],
    queryFn: () => ask(() => client.GET("/api/here")),
    staleTime: 0,
  });

const noticing = useLocalStorage(own("noticing"), false);
/** Whether the person lets this browser notice where they are. */
export const useNoticing = () => noticing;

/** A position this young, in seconds, is told as one of now. */
const young = 30;

/** Tells the server where the device is; it is told again soon where that fails. */
export function tellPosition({ latitude, longitude, accuracy, taken }: Fix) {
  const seconds = Math.min((Date.now() - taken) / 1000, 24 * 3600);
  const body = { latitude, longitude, accuracy, age: seconds < young ? 0 : seconds };
  return client.POST("/api/here", { body }).then(
    () => {},
    () => {},
  );
}

/** What can be done to places. What the server refuses is thrown, for the form to say. */
export function usePlaceActions() {
  const actions = useActions();
  const queries = useQueryClient();
  const server = useServer();
  const toasts = useToasts();

  function took(made: Made) {
    if (!made.change.revision) return;
    server.refresh(made.change.revision);
    void queries.invalidateQueries({ queryKey: ["here"] });
    toasts.show({ text: made.change.says, undo: made.change.revision });
  }
  const add = async (body: components["schemas"]["NewPlace"]) =>
    took(await send((header) => client.POST("/api/places", { params: { header }, body })));
  const edit = async (place: Place, body: PlacePatch) =>
    took(
      await asSeen(place, body, (header) =>
        client.PATCH("/api/places/{id}", {
          params: { path: { id: place.id }, header },
          headers: { "Content-Type": "application/merge-patch+json" },
          body,
        }),
      ),
    );
  const remove = (place: Place) =>
    actions.attempt(async () =>
      took(
        await asSeen(place, {}, (header) =>
          client.DELETE("/api/places/{id}", { params: { path: { id: place.id }, header } }),
        ),
      ),
    );
  return { add, edit, remove };
}
