import { useId, useState } from "react";
import { shrunk } from "../../state/shrunk";
import { panelWords as w } from "../../words/panel";
import type { Made } from "./usePanel";

/** A photo of what is in hand: shrunk here, saved on this device, sent when there is a network. */
export function PhotoKey({
  about,
  onAct,
}: {
  about: NonNullable<Made["about"]>;
  onAct: (made: Made) => void;
}) {
  const id = useId();
  const [said, setSaid] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      onAct({ kind: "photo", about, picture: await shrunk(file) });
      setSaid(w.photoKept);
    } catch {
      setSaid(w.noPicture);
    }
  };
  return (
    <p className="flex flex-wrap items-center gap-3">
      <label htmlFor={id} className="ask">
        {w.photo}
      </label>
      <input
        id={id}
        type="file"
        accept="image/*"
        capture="environment"
        className="sr-only"
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <span role="status">{said}</span>
    </p>
  );
}
