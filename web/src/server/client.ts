import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { windowId } from "./window-id";

export type Todo = components["schemas"]["Todo"];
export type ChangedTodo = components["schemas"]["ChangedTodo"];
export type TodoPatch = components["schemas"]["TodoPatch"];
export type Overview = components["schemas"]["Overview"];
export type View = components["schemas"]["View"];
export type Group = components["schemas"]["Group"];
export type Row = components["schemas"]["Row"];
export type List = components["schemas"]["List"];
export type Section = components["schemas"]["Section"];
export type Tag = components["schemas"]["Tag"];
export type Order = components["schemas"]["Order"];
export type Many = components["schemas"]["Many"];
export type SentenceOffer = components["schemas"]["SentenceOffer"];
export type Reach = components["schemas"]["Reach"];
export type Move = components["schemas"]["Move"];
export type Made = components["schemas"]["Made"];
export type Turned = components["schemas"]["Turned"];
export type Postponing = components["schemas"]["Postponing"];
export type Postponement = components["schemas"]["Postponement"];
export type PastChange = components["schemas"]["PastChange"];
export type Attachment = components["schemas"]["Attachment"];
export type Shelf = components["schemas"]["Shelf"];
export type RailCup = components["schemas"]["RailCup"];
export type Load = components["schemas"]["Load"];
export type Colour = components["schemas"]["Colour"];
export type Priority = components["schemas"]["Priority"];
export type Person = components["schemas"]["Person"];
export type Involved = components["schemas"]["Involved"];
export type Reading = components["schemas"]["Reading"];
export type Given = components["schemas"]["GivenHere"];
export type Said = components["schemas"]["When"];
export type SaidRead = components["schemas"]["WhenRead"];
export type Chip = components["schemas"]["Chip"];
export type Line = components["schemas"]["Line"];
export type Repeat = components["schemas"]["Repeat"];
export type RepeatChoice = components["schemas"]["RepeatChoice"];
export type RepeatPreview = components["schemas"]["RepeatPreview"];
export type Choice = components["schemas"]["Choice"];
export type FilterNode = components["schemas"]["FilterNode"];
export type Definition = components["schemas"]["Definition"];
export type Meaning = components["schemas"]["Meaning"];
export type OwnView = components["schemas"]["OwnView"];
export type NewOwnView = components["schemas"]["NewOwnView"];
export type Problem = components["schemas"]["Problem"];

/** A refusal: the server's own sentence, and where it belongs. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server did not answer at all. */
export class Away extends Error {
  constructor() {
    super("The server is away.");
  }
}

export const client = createClient<paths>({ baseUrl: "" });

client.use({
  async onRequest({ request }) {
    request.headers.set("Window-Id", await windowId);
    return request;
  },
});

interface Answer<T> {
  data?: T;
  error?: Problem;
  response: Response;
}

/** Unwraps an answer, or throws Refused or Away. */
export async function ask<T>(call: () => Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call();
  } catch (e) {
    if (e instanceof TypeError) throw new Away();
    throw e;
  }
  if (answer.data !== undefined) return answer.data;
  const p = answer.error;
  if (p && typeof p === "object" && "detail" in p) throw new Refused(p);
  if (answer.response.status >= 502) throw new Away();
  throw new Error(`The server answered ${answer.response.status}.`);
}

/** How many commands of this window have no answer yet, and when the last was answered. */
const asking = { open: 0, answered: -Infinity };
/** How long after the answer to a command what it changed may still come to be shown, in milliseconds. */
const shownWithin = 3000;

/** Whether what changes now may be what this window asked for. */
export const askedLately = () =>
  asking.open > 0 || performance.now() - asking.answered < shownWithin;

const pauses = [150, 600];

/**
 * Sends a command under one Idempotency-Key, again when the connection breaks:
 * the server carries it out once, whichever try arrives.
 */
export async function send<T>(
  call: (header: { "Idempotency-Key": string }) => Promise<Answer<T>>,
  key: string = crypto.randomUUID(),
): Promise<T> {
  const header = { "Idempotency-Key": key };
  asking.open++;
  try {
    for (const pause of pauses) {
      try {
        return await ask(() => call(header));
      } catch (e) {
        if (!(e instanceof Away)) throw e;
        await new Promise((done) => setTimeout(done, pause));
      }
    }
    return await ask(() => call(header));
  } finally {
    asking.open--;
    asking.answered = performance.now();
  }
}

export const etagOf = (todo: Pick<Todo, "revision">) => `"${todo.revision}"`;
