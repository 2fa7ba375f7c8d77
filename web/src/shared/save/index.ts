export { ConflictNote } from "./ConflictNote";
export { draftCount, dropDrafts } from "./draft";
export { SaveState } from "./SaveState";
export { type Document, type Kind, useDocument } from "./useDocument";
export { useUndoKeys } from "./useUndoKeys";
