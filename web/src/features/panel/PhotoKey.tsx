import { useId, useState } from "react";
import { useParams } from "react-router";
import { shrunk } from "../../state/shrunk";
import { panelWords as w } from "../../words/panel";
import { photoAddress } from "../plate/photoAddress";
import type { Made, Panel } from "./usePanel";

/** A photo of what is in hand: shrunk here, saved on this device, sent when there is a network. */
export function PhotoKey({
  about,
  panel,
  onAct,
}: {
  about: NonNullable<Made["about"]>;
  panel: Panel;
  onAct: (made: Made) => void;
}) {
  const { works = "", tag = "", number = "1" } = useParams();
  const place = { works, tag, number: Number(number) };
  const [named] = Object.entries(about);
  const taken = panel.entries.filter(
    (one) =>
      one.kind === "photo" &&
      one.answer.startsWith("kept") &&
      typeof one.body.sha256 === "string" &&
      named !== undefined &&
      one.about[named[0]] === named[1],
  );
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
    <div className="flex flex-wrap items-center gap-3">
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
      {taken.map((one) => (
        <a key={one.id} href={photoAddress(place, String(one.body.sha256))}>
          <img
            src={photoAddress(place, String(one.body.sha256))}
            alt={w.photoBy(one.name)}
            className="h-20 border border-hair"
            loading="lazy"
          />
        </a>
      ))}
    </div>
  );
}
