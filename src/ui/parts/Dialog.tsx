"use client";

import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  title: string;
  description?: string;
  /** Null: it must be answered. */
  onClose: (() => void) | null;
  children: ReactNode;
}

/** A window over the page that keeps the focus until it is answered. */
export function Dialog({ open, title, description, onClose, children }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => (next ? undefined : onClose?.())}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[#0f0e12]/60" />
        <Radix.Content
          className="fixed top-1/2 left-1/2 z-50 max-h-[90dvh] w-[min(94vw,38rem)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-[4px] border border-edge bg-sheet p-6"
          {...(description ? {} : { "aria-describedby": undefined })}
          onEscapeKeyDown={(e) => (onClose ? undefined : e.preventDefault())}
          onPointerDownOutside={(e) => (onClose ? undefined : e.preventDefault())}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-xl">{title}</Radix.Title>
            {onClose ? (
              <Radix.Close className="-m-2 p-3" aria-label="Close">
                <X size={20} aria-hidden="true" />
              </Radix.Close>
            ) : null}
          </div>
          {description ? <Radix.Description className="mb-4 text-soft">{description}</Radix.Description> : null}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
