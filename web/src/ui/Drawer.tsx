import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { useWords } from "../app/i18n";

/** A drawer for one thing in depth: at the right, on a phone from below. */
export function Drawer({
  open,
  close,
  title,
  grows = false,
  children,
}: {
  open: boolean;
  close: () => void;
  title: string;
  /** What is in it comes, or changes, after it has opened: on a phone it is tall from the first, so that nothing moves under the thumb. */
  grows?: boolean;
  children: ReactNode;
}) {
  const { t } = useWords();
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div aria-hidden className="fixed inset-0 bg-tape/40" />
      <DialogPanel
        className={`fixed overflow-auto border-rim bg-ground p-5 max-md:inset-x-0 max-md:bottom-0 max-md:max-h-[88dvh] max-md:rounded-t-xl max-md:border-t-2 max-md:p-4 md:inset-y-0 md:right-0 md:w-full md:max-w-md md:border-l ${grows ? "max-md:h-[88dvh]" : ""}`}
      >
        <div className="mb-4 flex items-center justify-between gap-4 max-md:sticky max-md:-top-4 max-md:z-10 max-md:-mx-4 max-md:-mt-4 max-md:bg-ground max-md:px-4 max-md:py-2">
          <DialogTitle className="text-lg">{title}</DialogTitle>
          <button className="btn" onClick={close}>
            <X size={16} aria-hidden /> {t("close")}
          </button>
        </div>
        {children}
      </DialogPanel>
    </Dialog>
  );
}
