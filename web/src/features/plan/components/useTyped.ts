// A field whose default stands pale in it: what is typed is kept as soon as it can be read; what cannot is said once the field is left.
import { useState } from "react";

interface Typed {
  value: string;
  /** What stands in the field cannot be read. */
  wrong: boolean;
  onChange: (next: string) => void;
  onBlur: () => void;
}

export function useTyped<T>(
  written: string,
  parse: (typed: string) => T | undefined,
  onWrite: (value: T | undefined) => void,
): Typed {
  const [typed, setTyped] = useState<string>();
  const [left, setLeft] = useState(false);
  const [seen, setSeen] = useState(written);
  if (seen !== written) {
    setSeen(written);
    setTyped(undefined);
  }
  const unread = typed !== undefined && typed.trim() !== "" && parse(typed) === undefined;
  return {
    value: typed ?? written,
    wrong: unread && left,
    onChange: (next) => {
      setTyped(next);
      setLeft(false);
      if (next.trim() === "") onWrite(undefined);
      else {
        const value = parse(next);
        if (value !== undefined) onWrite(value);
      }
    },
    onBlur: () => {
      setLeft(true);
      if (!unread) setTyped(undefined);
    },
  };
}
