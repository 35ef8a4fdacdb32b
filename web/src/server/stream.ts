import { own } from "./account";

/**
 * One stream of events for all windows of a browser. The window that holds the
 * lock listens to the server and passes on what it hears; when it closes, the
 * next one takes over where it stopped.
 */
export interface Heard {
  /** away and here tell whether the server answers. */
  kind: "change" | "time" | "reset" | "moved" | "hello" | "away" | "here" | "beat" | "ask";
  revision?: number;
  today?: string;
  now?: string;
  todos?: string[];
  places?: boolean;
  /** What rings or has rung may have changed. */
  rings?: boolean;
}

/** The name of the lock and of the channel. */
const name = own("stream");
/** Longer silence than this means that nobody listens any more. */
const silence = 25_000;

export function listen(heard: (event: Heard) => void, revision: () => number | undefined): void {
  const channel = new BroadcastChannel(name);
  let lastSign = Date.now();
  let leading = false;
  let away = false;

  const tell = (event: Heard) => {
    lastSign = Date.now();
    if (event.kind === "away" || event.kind === "here") {
      if (away === (event.kind === "away")) return;
      away = event.kind === "away";
    }
    channel.postMessage(event);
    heard(event);
  };

  channel.onmessage = ({ data }: MessageEvent<Heard>) => {
    lastSign = Date.now();
    if (data.kind !== "ask") heard(data);
    else if (leading && away) channel.postMessage({ kind: "away" });
  };
  channel.postMessage({ kind: "ask" });

  const lead = () =>
    new Promise<void>((ended) => {
      leading = true;
      let source = open();
      function open() {
        const since = revision();
        const es = new EventSource(`/api/events${since === undefined ? "" : `?since=${since}`}`);
        for (const kind of ["hello", "change", "time", "reset", "moved", "beat"] as const) {
          es.addEventListener(kind, (e: MessageEvent<string>) => {
            tell({ kind: "here" });
            tell({ ...(JSON.parse(e.data) as object), kind });
          });
        }
        es.onerror = () => {
          tell({ kind: "away" });
          if (es.readyState === EventSource.CLOSED) setTimeout(reopen, 1000);
        };
        return es;
      }
      function reopen() {
        source.close();
        source = open();
      }
      const watch = setInterval(() => {
        if (Date.now() - lastSign > silence) {
          tell({ kind: "away" });
          reopen();
        }
      }, 5000);
      stopLeading = () => {
        leading = false;
        clearInterval(watch);
        source.close();
        ended();
      };
    });
  let stopLeading = () => {};

  const queue = (steal: boolean) => {
    navigator.locks.request(name, { steal }, lead).catch(() => {
      // Another window thought this one asleep and took over.
      stopLeading();
      queue(false);
    });
  };
  queue(false);
  setInterval(() => {
    if (!leading && Date.now() - lastSign > 2 * silence) {
      lastSign = Date.now();
      queue(true);
    }
  }, 5000);
}
