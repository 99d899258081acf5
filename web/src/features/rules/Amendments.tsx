import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice, Words } from "../../components/inputs";
import { Tag } from "../../components/shapes";
import { rulesWords } from "../../words/rules";

type Amendment = NonNullable<Schemas["RulesIn"]["amendments"]>[number];

const SUBJECTS: readonly { value: Amendment["subject"]; label: string; unit: string }[] = [
  { value: "smallest_conductor", label: rulesWords.smallestConductor, unit: "AWG" },
  {
    value: "conductor_percent",
    label: rulesWords.minimumConductorAmpacity,
    unit: rulesWords.fullLoadCurrent,
  },
  {
    value: "disconnect_percent",
    label: rulesWords.minimumDisconnectRating,
    unit: rulesWords.fullLoadCurrent,
  },
  {
    value: "device_percent",
    label: rulesWords.maximumFuseBreaker,
    unit: rulesWords.fullLoadCurrent,
  },
  { value: "no_next_size_up", label: rulesWords.noNextSize, unit: "" },
];

/** What this place asks for beyond the code: named, with who asks and why. */
export function Amendments({
  amendments,
  onKeep,
}: {
  amendments: readonly Schemas["AmendmentOut"][];
  onKeep: (next: Amendment[]) => void;
}) {
  const [draft, setDraft] = useState<Amendment>({
    subject: "smallest_conductor",
    value: "",
    author: "",
    reason: "",
    // who entered it and when is set by the server
    by: "",
    at: "",
  });
  const kept: Amendment[] = amendments.map(({ subject, value, author, reason, by, at }) => ({
    subject: subject as Amendment["subject"],
    value,
    author,
    reason,
    by: by ?? "",
    at: at ?? "",
  }));
  const unit = SUBJECTS.find((item) => item.value === draft.subject)?.unit ?? "";
  const isReady =
    draft.author.trim() && draft.reason.trim() && (!unit || (draft.value ?? "").trim());
  return (
    <section className="space-y-2" aria-labelledby="amendments">
      <h2 id="amendments" className="stamp">
        {rulesWords.localAmendments}
      </h2>
      <p className="text-soft">{rulesWords.onlyRequirementsBeyond}</p>
      <ul className="space-y-1">
        {amendments.map((item, at) => (
          <li
            key={item.subject}
            className="flex flex-wrap items-baseline gap-x-3 border-l-4 border-plum pl-3"
          >
            <b>
              {item.label} {item.value}
            </b>
            <span>
              {item.author}: {item.reason}
            </span>
            {item.by && <Tag who={item.by} when={(item.at ?? "").slice(0, 16).replace("T", " ")} />}
            <button
              type="button"
              className="ask text-sm"
              onClick={() => onKeep(kept.filter((_, place) => place !== at))}
            >
              {rulesWords.remove}
            </button>
          </li>
        ))}
      </ul>
      <div className="metal flex flex-wrap items-end gap-x-4 gap-y-2 px-4 py-3">
        <Choice
          options={SUBJECTS}
          value={draft.subject}
          onValueChange={(subject) => setDraft({ ...draft, subject, value: "" })}
        />
        {unit && (
          <Words
            label={`Value, ${unit}`}
            value={draft.value}
            onValueChange={(value) => setDraft({ ...draft, value })}
            className="w-48"
          />
        )}
        <Words
          label={rulesWords.required}
          value={draft.author}
          onValueChange={(author) => setDraft({ ...draft, author })}
          className="w-48"
        />
        <Words
          label={rulesWords.reason}
          value={draft.reason}
          onValueChange={(reason) => setDraft({ ...draft, reason })}
          className="grow"
        />
        <button
          type="button"
          className="control"
          disabled={!isReady}
          onClick={() => onKeep([...kept.filter((item) => item.subject !== draft.subject), draft])}
        >
          {rulesWords.putForce}
        </button>
      </div>
    </section>
  );
}
