import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

/** A record of the API by its name in the OpenAPI description. */
export type Dto<Name extends keyof components["schemas"]> = components["schemas"][Name];

/** An answer that says what went wrong: a sentence and, where there is one, what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    sentence: string,
    readonly act: string | null,
    /** What is wrong with single fields of a form, by their names. */
    readonly fields: Readonly<Record<string, string>> = {},
  ) {
    super(sentence);
  }
}

let requestToken = "";

/** Every change carries this token; it comes with "who am I". */
export function setRequestToken(token: string): void {
  requestToken = token;
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-Zendle-Token", requestToken);
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: "" });
api.use(withToken);

interface Reply<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of a reply; throws a {@link Problem} when the server, or the way to it, failed. */
export async function read<T>(call: Promise<Reply<T>>): Promise<T> {
  let reply: Reply<T>;
  try {
    reply = await call;
  } catch (e) {
    if (e instanceof DOMException && e.name === "AbortError") throw e;
    throw new Problem(
      0,
      "Zendle cannot be reached.",
      "What you did before is safe. Check that it is running, then try again.",
    );
  }
  if (reply.response.ok) return reply.data as T;
  const body = (typeof reply.error === "object" && reply.error !== null ? reply.error : {}) as {
    title?: string;
    detail?: string;
    fields?: Record<string, string>;
  };
  throw new Problem(reply.response.status, body.title ?? "Something went wrong.", body.detail ?? null, body.fields);
}
