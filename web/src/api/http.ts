import createClient from "openapi-fetch";
import type { components, paths } from "../../generated/api";
import { forgetAnswers } from "./kept";
import { long } from "./long";
import { reached } from "./reach";

type Problem = components["schemas"]["ProblemDetails"];

/** An answer that says what was wrong; `problem` is what the server said, absent when it could not be reached. */
export class RequestFailed extends Error {
  constructor(
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
  }
}

/** This page among others that are open, as the server knows it. */
export const PAGE = crypto.randomUUID();
export const FROM_HERE = { "x-noxel-page": PAGE };

/** Ask the server; whatever is no answer becomes a {@link RequestFailed}. */
export async function answered(asked: Request | string, how: RequestInit = {}): Promise<Response> {
  const signal = how.signal ?? (asked instanceof Request ? asked.signal : undefined);
  let response: Response;
  try {
    response = await fetch(asked, how);
  } catch (error) {
    if (signal?.aborted) throw error;
    reached(false);
    throw new RequestFailed("Noxel does not answer. Is it still running?");
  }
  reached(true);
  if (response.status === 401) void forgetAnswers();
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    throw new RequestFailed(problem?.detail ?? `The answer was ${response.status}.`, problem);
  }
  return response;
}

/** The interface as its OpenAPI document has it: paths, parameters, bodies and answers are checked by the compiler. */
export const server = createClient<paths>({ fetch: (asked) => answered(asked), headers: FROM_HERE });

/** What was answered; a refusal was thrown before. */
export const got = async <T>(asked: Promise<{ data?: T }>): Promise<T> => (await asked).data as T;

/** Send a file; how far it is can be seen meanwhile. */
export const send = <T>(path: keyof paths, file: Blob, says: string) =>
  long(says, async (name) => {
    const headers = { "content-type": "application/json", "x-noxel-progress": name, ...FROM_HERE };
    return (await (await answered(path, { method: "POST", headers, body: file })).json()) as T;
  });

/** Fetch a file that takes a while to write, and hand it to the browser as a download. */
export const download = (path: string, says: string) =>
  long(says, async (name) => {
    const response = await answered(`/api${path}`, { headers: { "x-noxel-progress": name } });
    const named = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get("content-disposition") ?? "")?.[1];
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await response.blob());
    link.download = decodeURIComponent(named ?? "noxel");
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
  });
