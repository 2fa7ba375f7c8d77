import { Upload } from "antd";
import type { ReactNode } from "react";

interface Props {
  /** Kinds of files, as the browser's own field has them. */
  accept: string;
  onPick: (files: File[]) => void;
  /** Its name to readers, where the button's words are not enough. */
  "aria-label"?: string;
  multiple?: boolean;
  disabled?: boolean;
  /** The button. */
  children: ReactNode;
}

/** Files are chosen, or dropped on the button, and handed on: sending them is not its business. */
export function PickFiles({ onPick, multiple = false, children, ...field }: Props) {
  return (
    <Upload
      {...field}
      multiple={multiple}
      showUploadList={false}
      beforeUpload={(file, all) => {
        // Asked once for each of them.
        if (file === all[0]) onPick(all);
        return Upload.LIST_IGNORE;
      }}
    >
      {children}
    </Upload>
  );
}
