import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { frameWords } from "../words/frame";

export interface SheetProps {
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
  title: string;
  children: ReactNode;
  /** As wide as the desk, for two things beside each other. */
  isWide?: boolean;
}

/** A sheet that slides over the lower part of the screen; Esc closes, nothing is lost. */
export function Sheet({ isOpen, onOpenChange, title, children, isWide = false }: SheetProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`slides fixed inset-x-0 bottom-0 z-50 mx-auto max-h-[88dvh] overflow-y-auto border-t-2 border-x-2 border-ink bg-ground p-4 ${isWide ? "max-w-[1240px]" : "max-w-3xl"}`}
        >
          <div className="mb-2 flex items-start justify-between gap-4">
            <Dialog.Title className="font-headline text-2xl leading-tight font-bold uppercase">
              {title}
            </Dialog.Title>
            <Dialog.Close className="control shrink-0">{frameWords.close}</Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
