// The one way to the server. Types come from its own description (schema.d.ts is generated).
import createFetchClient from "openapi-fetch";
import createQueryClient from "openapi-react-query";
import type { components, paths } from "../../api/schema";
import { heard } from "./session";

export const fetchClient = createFetchClient<paths>({ baseUrl: "" });
fetchClient.use({
  onResponse: ({ request, response }) =>
    heard(new URL(request.url, location.origin).pathname, response.status),
});
export const $api = createQueryClient(fetchClient);

export type Schemas = components["schemas"];
export type ProblemDetails = Schemas["ProblemDetails"];

/** The problem behind an error, when the server sent one. */
export function problemOf(error: unknown): ProblemDetails | undefined {
  const isProblem = typeof error === "object" && error !== null && "detail" in error && "status" in error;
  return isProblem ? (error as ProblemDetails) : undefined;
}
