import { expect, test } from "@playwright/test";
import { comeBack } from "../offline.mjs";

test("a thousand entries arrive once each, though the server is killed twice on the way", async () => {
  const { kept, twice } = await comeBack(process.env.ORTHOMER ?? "../target/debug/orthomer", 8163);
  expect({ kept, twice }).toEqual({ kept: 1000, twice: 0 });
});
