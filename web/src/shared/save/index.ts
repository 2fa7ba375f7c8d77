export { account, belongTo } from "./account";
export { alone } from "./alone";
export { ConflictNote } from "./ConflictNote";
export {
  adoptDrafts,
  draftCount,
  draftOf,
  dropDraft,
  dropDrafts,
  keepDraft,
  othersDraftCount,
} from "./draft";
export { SaveState } from "./SaveState";
export { type Document, type Kind, useDocument } from "./useDocument";
export { useUndoKeys } from "./useUndoKeys";
