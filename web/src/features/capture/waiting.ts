// Pictures that wait on this phone until the studio has them: encrypted with a key that follows from the private link, so that
// whoever has the phone without the link has nothing, and forgotten with it.
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Asked, Pose } from "./model";

export interface Take {
  pose: Pose;
  mirrored: boolean;
  distance_m?: number;
}

interface Locked {
  id?: number;
  /** Whose it is, without telling the link. */
  link: string;
  iv: Uint8Array<ArrayBuffer>;
  bytes: ArrayBuffer;
}

interface Kept extends DBSchema {
  waiting: { key: number; value: Locked & { take: Take; name: string }; indexes: { link: string } };
  asked: { key: string; value: Locked };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

function db(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("orthomer-pictures", 1, {
    upgrade(made) {
      const waiting = made.createObjectStore("waiting", { keyPath: "id", autoIncrement: true });
      waiting.createIndex("link", "link");
      made.createObjectStore("asked", { keyPath: "link" });
    },
  });
  return opened;
}

const AES = "AES-GCM";
const encoded = (text: string) => new TextEncoder().encode(text);

async function hashed(token: string): Promise<string> {
  const bytes = new Uint8Array(await crypto.subtle.digest("SHA-256", encoded(`pictures of ${token}`)));
  return Array.from(bytes.slice(0, 8), (byte) => byte.toString(16).padStart(2, "0")).join("");
}

async function keyOf(token: string): Promise<CryptoKey> {
  const own = await crypto.subtle.importKey("raw", encoded(token), "HKDF", false, ["deriveKey"]);
  const how = { name: "HKDF", hash: "SHA-256", salt: new Uint8Array(), info: encoded("waiting pictures") };
  return crypto.subtle.deriveKey(how, own, { name: AES, length: 256 }, false, ["encrypt", "decrypt"]);
}

async function locked(token: string, bytes: BufferSource): Promise<Locked> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const sealed = await crypto.subtle.encrypt({ name: AES, iv }, await keyOf(token), bytes);
  return { link: await hashed(token), iv, bytes: sealed };
}

async function unlocked(token: string, { iv, bytes }: Locked): Promise<ArrayBuffer> {
  return crypto.subtle.decrypt({ name: AES, iv }, await keyOf(token), bytes);
}

/** Whether this browser can keep anything locked: pages without HTTPS have no cipher. */
const canLock = (): boolean => typeof crypto !== "undefined" && crypto.subtle !== undefined;

export type KeptAs = { id: number } | "full" | "not-here";

/** Keeps a picture until it is sent. Where there is no room, or nothing to lock it with, the page alone holds it. */
export async function keepPicture(token: string, file: File, take: Take): Promise<KeptAs> {
  if (!canLock()) return "not-here";
  try {
    const sealed = await locked(token, await file.arrayBuffer());
    const entry = { ...sealed, take, name: file.name } as Kept["waiting"]["value"];
    return { id: await (await db()).add("waiting", entry) };
  } catch (error) {
    return error instanceof DOMException && error.name === "QuotaExceededError" ? "full" : "not-here";
  }
}

/** What waits of a link, oldest first. What cannot be opened any more is let go. */
export async function waitingPictures(token: string): Promise<{ id: number; file: File; take: Take }[]> {
  if (!canLock()) return [];
  const store = await db();
  const all = await store.getAllFromIndex("waiting", "link", await hashed(token));
  const found: { id: number; file: File; take: Take }[] = [];
  for (const one of all) {
    const { id = 0, name, take } = one;
    const bytes = await unlocked(token, one).catch(() => undefined);
    if (bytes) found.push({ id, take, file: new File([bytes], name, { type: "image/jpeg" }) });
    else await store.delete("waiting", id);
  }
  return found;
}

/** The studio has it: nothing of it stays on the phone. */
export async function dropPicture(id: number): Promise<void> {
  await (await db()).delete("waiting", id);
}

export async function waitingCount(token: string): Promise<number> {
  return canLock() ? (await db()).countFromIndex("waiting", "link", await hashed(token)) : 0;
}

/** Keeps what was asked for, with the outlines of last time, for a place without a line. */
export async function keepAsked(token: string, asked: Asked): Promise<void> {
  if (!canLock()) return;
  const sealed = await locked(token, encoded(JSON.stringify(asked)));
  // Without room the page works all the same, with a line.
  await (await db()).put("asked", sealed).catch(() => undefined);
}

export async function keptAsked(token: string): Promise<Asked | undefined> {
  if (!canLock()) return undefined;
  const found = await (await db()).get("asked", await hashed(token));
  const bytes = found && (await unlocked(token, found).catch(() => undefined));
  return bytes && JSON.parse(new TextDecoder().decode(bytes));
}

/** Forgets all that this phone keeps of a link's pictures. */
export async function forgetPictures(token: string): Promise<void> {
  if (!canLock()) return;
  const [store, link] = [await db(), await hashed(token)];
  for (const id of await store.getAllKeysFromIndex("waiting", "link", link))
    await store.delete("waiting", id);
  await store.delete("asked", link);
}
