import { onBeforeUnmount, ref } from "vue";

/** A notification of the browser, through the worker that answers it. */
export interface Notice {
  tag: string;
  title: string;
  body: string;
  /** What the worker is to know when something is pressed on it. */
  data?: { ring: string; todo: string };
}

const worker = async () => navigator.serviceWorker?.getRegistration();

export type Permission = NotificationPermission | "none";
const permission = (): Permission =>
  "Notification" in window && navigator.serviceWorker ? Notification.permission : "none";

/** Whether the browser shows notifications, as that stands by now. */
export const mayNotify = () =>
  permission() === "granted" && navigator.serviceWorker.controller !== null;

/** What the person said to the browser about notifications; it follows a change of mind. */
export function usePermission() {
  const said = ref(permission());
  const look = () => (said.value = permission());
  let status: PermissionStatus | undefined;
  void navigator.permissions
    ?.query({ name: "notifications" })
    .then((s) => (status = s).addEventListener("change", look))
    .catch(() => {}); // a browser that does not tell of changes
  onBeforeUnmount(() => status?.removeEventListener("change", look));
  const request = async () => {
    await Notification.requestPermission();
    look();
  };
  return { said, request };
}

/** Shows a notification; one with data has buttons for Done and Later. */
export async function notify(notice: Notice) {
  const { title, tag, body, data } = notice;
  const actions = data && [
    { action: "done", title: "Done" },
    { action: "later", title: "Later" },
  ];
  // The types of the page lack the actions of the Notifications API.
  const options = { tag, body, data, actions, icon: "/mark.svg" } as NotificationOptions;
  await (await worker())?.showNotification(title, options);
}

/**
 * Takes back the notifications that `gone` says are over, and says so again once `renew` has
 * brought what it goes by up to date: another window may know more, and have shown one since.
 */
export async function withdraw(gone: (tag: string) => boolean, renew: () => Promise<boolean>) {
  const there = (await (await worker())?.getNotifications()) ?? [];
  const over = there.filter((n) => gone(n.tag));
  if (!over.length || !(await renew())) return;
  for (const n of over) if (gone(n.tag)) n.close();
}

/** Lets the worker be there; where there can be none, nothing. */
export async function startWorker() {
  try {
    await navigator.serviceWorker?.register("/worker.js");
  } catch {
    // The page does without: the settings say that the browser shows none.
  }
}
