/**
 * The service worker: it answers what is pressed on notifications of rings, also while no
 * window is open.
 */

/** For how long Later puts a ring off. */
const laterMinutes = 10;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));
self.addEventListener("notificationclick", (e) => {
  e.notification.close();
  e.waitUntil(answer(e.action, e.notification));
});

async function answer(action, notification) {
  const about = notification.data;
  if (about && action === "done")
    return say(notification, `/api/todos/${about.todo}/complete`, undefined);
  if (about && action === "later")
    return say(notification, "/api/bell/later", { rings: [about.ring], minutes: laterMinutes });
  return show(about ? `/today?slip=${about.todo}` : "/today");
}

/** Sends what was pressed; where that fails the notification is there again and says so. */
async function say(notification, path, body) {
  const headers = { "Idempotency-Key": crypto.randomUUID(), "Window-Id": "notification" };
  if (body) headers["Content-Type"] = "application/json";
  let problem = "The server is away. Nothing was changed.";
  try {
    const reply = await fetch(path, {
      method: "POST",
      headers,
      body: body && JSON.stringify(body),
    });
    if (reply.ok) return;
    problem = (await reply.json()).detail;
  } catch {
    // It is said below.
  }
  await self.registration.showNotification(notification.title, {
    tag: notification.tag,
    body: problem,
    icon: "/mark.svg",
    data: notification.data,
    actions: [
      { action: "done", title: "Done" },
      { action: "later", title: "Later" },
    ],
  });
}

/** Brings a window into sight, at the slip. */
async function show(path) {
  const windows = await self.clients.matchAll({ type: "window" });
  const there = windows[0];
  if (!there) return self.clients.openWindow(path);
  await there.focus();
  there.postMessage({ show: path });
}
