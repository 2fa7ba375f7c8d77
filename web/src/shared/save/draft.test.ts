import { beforeEach, expect, test, vi } from "vitest";
import { belongTo } from "./account";
import { adoptDrafts, draftCount, draftOf, dropDrafts, keepDraft, othersDraftCount } from "./draft";

beforeEach(() => {
  localStorage.clear();
  belongTo("mara");
});

test("a draft is its account's: another finds none, and is told that one waits", () => {
  keepDraft("tape", { value: { calf: "37" } });
  belongTo("jo");
  expect([draftOf("tape"), draftCount(), othersDraftCount()]).toEqual([undefined, 0, 1]);
  belongTo("mara");
  expect(draftOf("tape")?.value).toEqual({ calf: "37" });
});

test("who signs out forgets their own drafts and nobody else's", () => {
  keepDraft("tape", { value: {} });
  belongTo("jo");
  keepDraft("tests", { value: {} });
  dropDrafts();
  expect([draftCount(), othersDraftCount()]).toEqual([0, 1]);
});

test("a draft of before drafts had an owner is found by whoever signs in next", () => {
  localStorage.setItem("orthomer-draft-tape", JSON.stringify({ calf: "37" }));
  adoptDrafts();
  expect(draftOf("tape")).toEqual({ value: { calf: "37" } });
  expect(localStorage.getItem("orthomer-draft-tape")).toBeNull();
});

test("a draft of before that there is no room to copy waits where it is", () => {
  localStorage.setItem("orthomer-draft-tape", JSON.stringify({ calf: "37" }));
  const removeItem = vi.fn();
  const setItem = () => {
    throw new DOMException("full", "QuotaExceededError");
  };
  vi.stubGlobal("localStorage", { "orthomer-draft-tape": "{}", getItem: () => "{}", setItem, removeItem });
  adoptDrafts();
  vi.unstubAllGlobals();
  expect(removeItem).not.toHaveBeenCalled();
});

test("a browser without room says so", () => {
  const full = () => {
    throw new DOMException("full", "QuotaExceededError");
  };
  vi.stubGlobal("localStorage", { setItem: full });
  expect(keepDraft("tape", { value: {} })).toBe(false);
  vi.unstubAllGlobals();
});

test("a draft that does not parse is none", () => {
  keepDraft("tape", { value: {} });
  const [key = ""] = Object.keys(localStorage).filter((one) => one.endsWith("tape"));
  localStorage.setItem(key, "{");
  expect(draftOf("tape")).toBeUndefined();
});
