import { useLocalStorage } from "@vueuse/core";
import { own } from "@/server/account";

/** The page that this browser opens with: a path within the site. */
export const openingPage = useLocalStorage(own("opens-with"), "/today");

/** Where the bare address leads; what was not written here is not followed. */
export const opening = () => (/^\/[a-z]/.test(openingPage.value) ? openingPage.value : "/today");
