import { lazy, Suspense } from "react";
import { useTranslation } from "react-i18next";
import { Dialog } from "../shared/ui";

/** Fetched when it is first opened: it knows every client, page and exercise. */
const Finder = lazy(() => import("./Finder"));

export interface Act {
  name: string;
  act: () => void;
}

interface Props {
  open: boolean;
  onClose: () => void;
  /** What can be done from anywhere. */
  acts: Act[];
}

/** Goes to a client, a page or an exercise by its name, or does something, without the mouse. */
export function Palette({ open, onClose, acts }: Props) {
  const { t } = useTranslation();
  return (
    <Dialog open={open} title={t("palette.title")} onClose={onClose}>
      <Suspense>
        <Finder onClose={onClose} acts={acts} />
      </Suspense>
    </Dialog>
  );
}
