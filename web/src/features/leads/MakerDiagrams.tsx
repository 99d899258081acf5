import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Words } from "../../components/inputs";
import { ProblemSlab, Stop, Tag } from "../../components/shapes";
import type { Given, Place } from "../../state/useJob";
import { Photo } from "../plate/Photo";
import { type Joint, lastingId } from "./joints";

type Box = Schemas["BoxOut"];
type Leads = Given["leads"];

export interface MakerDiagramsProps {
  place: Place;
  box: Box;
  leads: Leads;
  joints: readonly Joint[];
  onLeadsChange: (change: Partial<Leads>) => void;
}

/** The maker's own diagram beside the derived joints; where they differ a named person decides. */
export function MakerDiagrams({ place, box, leads, joints, onLeadsChange }: MakerDiagramsProps) {
  const [source, setSource] = useState("");
  const [reason, setReason] = useState("");
  const maker = leads.maker ?? [];
  const add = () =>
    onLeadsChange({
      maker: [
        ...maker.filter((item) => item.state !== box.asked),
        {
          id: lastingId(),
          state: (box.asked || "run") as "run",
          volts: "",
          direction: leads.direction ?? "forward",
          source: source.trim(),
          photo: "",
          joints: [...joints],
        },
      ],
      followed: null,
    });
  const follow = (side: "maker" | "derived") =>
    onLeadsChange({ followed: { side, reason: reason.trim(), by: "", at: "" } });
  return (
    <div className="space-y-3">
      {maker.map((item) => {
        const told = box.diagrams.find((other) => other.id === item.id);
        return (
          <div key={item.id} className="metal px-4 py-3" data-testid="maker">
            <p className="font-semibold">
              {item.source || "Maker’s diagram"}, {item.state}
            </p>
            {told?.refusal && <ProblemSlab problem={told.refusal} />}
            {told?.agrees && <p className="text-proven">Same joints as derived.</p>}
            {told?.is_rotation_only && (
              <p className="text-caution">
                Same joints, other order of lines: it turns the other way.
              </p>
            )}
            <ul className="font-mono text-sm">
              {told?.differences.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
            <Photo
              place={place}
              sha256={item.photo ?? ""}
              subject="diagram"
              onPhotoChange={(photo) =>
                onLeadsChange({
                  maker: maker.map((other) => (other.id === item.id ? { ...other, photo } : other)),
                })
              }
            />
            <button
              type="button"
              className="ask"
              onClick={() =>
                onLeadsChange({
                  maker: maker.filter((other) => other.id !== item.id),
                  followed: null,
                })
              }
            >
              Take this diagram out
            </button>
          </div>
        );
      })}
      {box.is_disputed && (
        <Stop strength="hold" title="Maker and derivation differ. Look at both again, then decide.">
          <Words
            label="Why"
            value={reason}
            onValueChange={setReason}
            placeholder="what you saw that settles it"
          />
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="control"
              aria-disabled={!reason.trim()}
              onClick={() => reason.trim() && follow("maker")}
            >
              Follow the maker
            </button>
            <button
              type="button"
              className="control"
              aria-disabled={!reason.trim()}
              onClick={() => reason.trim() && follow("derived")}
            >
              Follow the derived joints
            </button>
          </div>
          {!reason.trim() && <p className="text-sm">Say why first; it prints on the sheet.</p>}
        </Stop>
      )}
      {leads.followed && box.followed !== "" && (
        <p>
          Followed: <b>{box.followed === "maker" ? "the maker’s diagram" : "the derived joints"}</b>
          , {leads.followed.reason}{" "}
          {leads.followed.by && (
            <Tag who={leads.followed.by} when={(leads.followed.at ?? "").slice(0, 10)} />
          )}
        </p>
      )}
      <Words
        label="Where it stands: plate, cover, leaflet"
        value={source}
        onValueChange={setSource}
        placeholder="inside of the box cover"
      />
      <button
        type="button"
        className="control"
        aria-disabled={joints.length === 0}
        onClick={() => joints.length > 0 && add()}
      >
        Keep the joints shown as the maker’s
      </button>
      <p className="text-sm text-soft">
        Tap the joints together as the diagram has them, then keep them here.
        {joints.length === 0 && " Nothing is joined yet."}
      </p>
    </div>
  );
}
