import { useState } from "react";

/** Something that is shown once, to be copied: selectable, with a button beside it. */
export function CopyLine({
  label,
  text,
  copy,
  copied,
}: {
  label: string;
  text: string;
  copy: string;
  copied: string;
}) {
  const [isCopied, setCopied] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <output aria-label={label} className="min-w-0 select-all break-all font-mono">
        {text}
      </output>
      <button
        type="button"
        className="control"
        onClick={() => {
          // without a secure address there is no clipboard: the line can still be selected
          void navigator.clipboard?.writeText(text).then(() => setCopied(true));
        }}
      >
        {isCopied ? copied : copy}
      </button>
    </div>
  );
}
