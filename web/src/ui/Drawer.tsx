import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { useWords } from "../app/i18n";

/** A drawer at the right for one thing in depth. */
export function Drawer({
  open,
  close,
  title,
  children,
}: {
  open: boolean;
  close: () => void;
  title: string;
  children: ReactNode;
}) {
  const { t } = useWords();
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div aria-hidden className="fixed inset-0 bg-tape/40" />
      <DialogPanel className="fixed inset-y-0 right-0 w-full max-w-md overflow-auto border-l border-rim bg-ground p-5">
        <div className="mb-4 flex items-center justify-between gap-4">
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
