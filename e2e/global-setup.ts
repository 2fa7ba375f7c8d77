import { mkdirSync } from "node:fs";
import { type FullConfig, request } from "@playwright/test";

/** Signs in once for all tests: attempts are limited. */
export default async function signIn(config: FullConfig): Promise<void> {
  const { baseURL, storageState } = config.projects[0].use;
  mkdirSync("test-results", { recursive: true });
  const context = await request.newContext({ baseURL });
  const answer = await context.post("/api/v1/session", { data: { login: "mara", password: "plumb-line-demo" } });
  if (!answer.ok()) throw new Error(`sign-in answered ${answer.status()}`);
  await context.storageState({ path: storageState as string });
  await context.dispose();
}
