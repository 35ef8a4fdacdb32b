import { reactive } from "vue";
import { own } from "./account";
import { defaultValues, type SettingName } from "@/words/settings";

export type Values = Partial<Record<SettingName, string>>;

const storedAs = own("settings");

/**
 * The settings in force. Until the server has told them they are those that this browser
 * saw last, so that a page is dark from its first moment.
 */
export const inForce = reactive({ ...defaultValues, ...read() });
/** How many changes are on their way: an answer to a read may be from before them. */
let waiting = 0;

function read(): Values {
  try {
    return JSON.parse(localStorage.getItem(storedAs) ?? "{}") as Values;
  } catch {
    return {}; // written by something else
  }
}

/** Takes what the server says is in force. */
export function told(values: Values) {
  if (waiting) return;
  Object.assign(inForce, values);
  localStorage.setItem(storedAs, JSON.stringify(values));
}

/** Shows values as they will be, while they are kept; as they were where they are not. */
export async function during<T>(values: Values, keep: () => Promise<T>): Promise<T> {
  const before = { ...inForce };
  Object.assign(inForce, values);
  waiting++;
  try {
    return await keep();
  } catch (e) {
    Object.assign(inForce, before);
    throw e;
  } finally {
    waiting--;
  }
}
