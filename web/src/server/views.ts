import { useRouter } from "vue-router";
import { client, type Made, type NewOwnView, type OwnView, send } from "./client";
import { useActions } from "./actions";
import { asSeen } from "./seen";
import { useServer } from "./server";
import { useToasts } from "@/kit/toasts";

/** A view as it was seen. */
type Seen = Pick<OwnView, "id" | "revision">;
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

  /** Saves a new view. */
  async function add(body: NewOwnView): Promise<Made> {
    const made = await send((header) =>
      client.POST("/api/own-views", { params: { header }, body }),
    );
    took(made);
    return made;
  }
  const patch = (view: Seen, body: Partial<NewOwnView>) =>
    asSeen(view, body, (header) =>
      client.PATCH("/api/own-views/{id}", {
        params: { ...at(view.id), header },
        ...patching,
        body,
      }),
    );
  /** Writes what has been altered in a view, as it was seen. */
  async function save(view: Seen, body: Partial<NewOwnView>): Promise<Made> {
    const made = await patch(view, body);
    took(made);
    return made;
  }
  const edit = (view: Seen, body: Partial<NewOwnView>) => go(() => patch(view, body));
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
  async function remove(view: Seen) {
    if (router.currentRoute.value.path.startsWith(`/view/${view.id}`)) await router.push("/today");
    await go(() =>
      asSeen(view, {}, (header) =>
        client.DELETE("/api/own-views/{id}", { params: { ...at(view.id), header } }),
      ),
    );
  }
  return { add, save, edit, move, copy, remove };
}
