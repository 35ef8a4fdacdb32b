import { useRouter } from "vue-router";
import { client, type Made, type NewOwnView, type OwnView, send } from "@/api/client";
import { useActions } from "./actions";
import { useServer } from "./server";
import { useToasts } from "./toasts";

const patching = { headers: { "Content-Type": "application/merge-patch+json" } };

/** What can be done to the views of one's own. */
export function useViews() {
  const actions = useActions();
  const router = useRouter();
  const server = useServer();
  const toasts = useToasts();

  function took(made: Made) {
    if (!made.change.revision) return;
    server.refresh(made.change.revision);
    toasts.show({ text: made.change.says, undo: made.change.revision });
  }
  const go = (work: () => Promise<Made>) =>
    actions.attempt(async () => {
      const made = await work();
      took(made);
      return made;
    });
  const at = (id: string) => ({ path: { id } });

  /** Saves a new view, or what one has become. */
  async function save(id: string | undefined, body: NewOwnView): Promise<Made> {
    const made = await send((header) =>
      id
        ? client.PATCH("/api/own-views/{id}", { params: at(id), ...patching, body })
        : client.POST("/api/own-views", { params: { header }, body }),
    );
    took(made);
    return made;
  }
  const edit = (view: Pick<OwnView, "id">, body: Partial<NewOwnView>) =>
    go(() =>
      send(() => client.PATCH("/api/own-views/{id}", { params: at(view.id), ...patching, body })),
    );
  const move = (view: Pick<OwnView, "id">, body: { before?: string; after?: string }) =>
    go(() =>
      send((header) =>
        client.POST("/api/own-views/{id}/move", { params: { ...at(view.id), header }, body }),
      ),
    );
  async function copy(view: Pick<OwnView, "id">) {
    const made = await go(() =>
      send((header) =>
        client.POST("/api/own-views/{id}/copy", { params: { ...at(view.id), header } }),
      ),
    );
    if (made) await router.push(`/view/${made.id}/edit`);
  }
  async function remove(view: Pick<OwnView, "id">) {
    if (router.currentRoute.value.path.startsWith(`/view/${view.id}`)) await router.push("/today");
    await go(() => send(() => client.DELETE("/api/own-views/{id}", { params: at(view.id) })));
  }
  return { save, edit, move, copy, remove };
}
