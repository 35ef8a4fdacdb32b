import { useEventListener, useThrottleFn } from "@vueuse/core";
import { onBeforeUnmount, ref, watch } from "vue";

/** Where the device is, as the browser tells it (W3C Geolocation). */
export interface Fix {
  /** In degrees. */
  latitude: number;
  longitude: number;
  /** By how many metres it may be wrong. */
  accuracy: number;
  /** When it was taken, in milliseconds of this machine's clock. */
  taken: number;
}

/** What the person said to the browser about where they are; none where it cannot be asked. */
export type Allowed = PermissionState | "none";
const possible = () => window.isSecureContext && "geolocation" in navigator;

/** A device tells its position more often than anybody wants to know, in milliseconds. */
const atMostEvery = 4_000;
const options: PositionOptions = { enableHighAccuracy: true, timeout: 20_000, maximumAge: 0 };

const fixOf = ({ coords, timestamp }: GeolocationPosition): Fix => ({
  latitude: coords.latitude,
  longitude: coords.longitude,
  accuracy: coords.accuracy,
  taken: timestamp,
});

/** Why there is no position, in words. */
export function positionTrouble(e: unknown): string {
  if (!possible())
    return "A browser tells where it is on a secure page alone (https, or this machine itself).";
  const code = (e as GeolocationPositionError).code;
  if (code === 1)
    return "This browser was told not to say where you are. Its own settings for this address change that.";
  if (code === 3)
    return "The device took too long to say where it is. Try again, or type the position.";
  return "The device does not know where it is just now. Try again, or type the position.";
}

/** Asks where the device is, once; what it throws positionTrouble says in words. */
export const positionNow = () =>
  new Promise<Fix>((found, failed) => {
    if (!possible()) return failed(new Error("not possible"));
    navigator.geolocation.getCurrentPosition((p) => found(fixOf(p)), failed, options);
  });

/** What the person said to the browser; it follows a change of mind. */
export function useAllowed() {
  const allowed = ref<Allowed>(possible() ? "prompt" : "none");
  let status: PermissionStatus | undefined;
  const look = () => status && (allowed.value = status.state);
  if (possible())
    void navigator.permissions
      ?.query({ name: "geolocation" })
      .then((s) => {
        status = s;
        look();
        s.addEventListener("change", look);
      })
      .catch(() => {}); // a browser that does not tell
  onBeforeUnmount(() => status?.removeEventListener("change", look));
  return allowed;
}

/** Listens to the device for as long as it is wanted and the page is in sight. */
export function useWatch(wanted: () => boolean, told: (fix: Fix) => void) {
  const reading = ref(false);
  const trouble = ref("");
  const tell = useThrottleFn(told, atMostEvery, true);
  let watching: number | undefined;
  function look() {
    const on = wanted() && possible() && document.visibilityState === "visible";
    if (on === (watching !== undefined)) return;
    if (on) {
      watching = navigator.geolocation.watchPosition(
        (p) => {
          reading.value = true;
          trouble.value = "";
          void tell(fixOf(p));
        },
        (e) => {
          reading.value = false;
          trouble.value = positionTrouble(e);
        },
        options,
      );
    } else if (watching !== undefined) {
      navigator.geolocation.clearWatch(watching);
      watching = undefined;
      reading.value = false;
      trouble.value = "";
    }
  }
  watch(wanted, look, { immediate: true });
  useEventListener(document, "visibilitychange", look);
  onBeforeUnmount(() => watching !== undefined && navigator.geolocation.clearWatch(watching));
  return { reading, trouble };
}
