import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Words } from "../../components/inputs";
import { ProblemSlab, Stop, Tag } from "../../components/shapes";
import type { Given, Place } from "../../state/useJob";
import { leadsWords } from "../../words/leads";
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
  const [printed, setPrinted] = useState("");
  const maker = leads.maker ?? [];
  const add = (text: string, drawn: readonly Joint[]) =>
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
          text,
          joints: [...drawn],
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
              {item.source || leadsWords.makersDiagram}, {item.state}
            </p>
            {told?.refusal && <ProblemSlab problem={told.refusal} />}
            {told && told.joints.length > 0 && (
              <p className="font-mono text-sm">{told.joints.join(", ")}</p>
            )}
            {told && told.fits.length > 0 && (
              <p>{leadsWords.diagramFits(told.fits.join(leadsWords.or))}</p>
            )}
            {box.kind === "" && told && !told.refusal && told.fits.length === 0 && (
              <p className="text-caution">{leadsWords.diagramFitsNone}</p>
            )}
            {told?.agrees && <p className="text-proven">{leadsWords.sameJointsDerived}</p>}
            {told?.is_rotation_only && (
              <p className="text-caution">{leadsWords.sameJointsDifferent}</p>
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
              {leadsWords.removeDiagram}
            </button>
          </div>
        );
      })}
      {box.is_disputed && (
        <Stop strength="hold" title={leadsWords.makersDiagramDerived}>
          <Words
            label={leadsWords.reason}
            value={reason}
            onValueChange={setReason}
            placeholder={leadsWords.whatYouFound}
          />
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="control"
              aria-disabled={!reason.trim()}
              onClick={() => reason.trim() && follow("maker")}
            >
              {leadsWords.followMakersDiagram}
            </button>
            <button
              type="button"
              className="control"
              aria-disabled={!reason.trim()}
              onClick={() => reason.trim() && follow("derived")}
            >
              {leadsWords.followDerivedConnection}
            </button>
          </div>
          {!reason.trim() && <p className="text-sm">{leadsWords.enterReasonFirst}</p>}
        </Stop>
      )}
      {leads.followed && box.followed !== "" && (
        <p>
          {leadsWords.followed}{" "}
          <b>
            {box.followed === "maker" ? leadsWords.makersDiagram2 : leadsWords.derivedConnection}
          </b>
          , {leads.followed.reason}{" "}
          {leads.followed.by && (
            <Tag who={leads.followed.by} when={(leads.followed.at ?? "").slice(0, 10)} />
          )}
        </p>
      )}
      <Words
        label={leadsWords.sourceNameplateCover}
        value={source}
        onValueChange={setSource}
        placeholder={leadsWords.insideBoxCover}
      />
      <Words
        label={leadsWords.diagramAsPrinted}
        value={printed}
        onValueChange={setPrinted}
        placeholder="1-7 L1, 2-8 L2, 3-9 L3, 4-5-6"
      />
      <button
        type="button"
        className="control"
        aria-disabled={!printed.trim()}
        onClick={() => {
          if (printed.trim()) add(printed.trim(), []);
          setPrinted("");
        }}
      >
        {leadsWords.saveDiagramPrinted}
      </button>
      <button
        type="button"
        className="control"
        aria-disabled={joints.length === 0}
        onClick={() => joints.length > 0 && add("", joints)}
      >
        {leadsWords.saveJointsShown}
      </button>
      <p className="text-sm text-soft">
        {leadsWords.tapJointsTogether}
        {joints.length === 0 && leadsWords.nothingJoinedYet}
      </p>
    </div>
  );
}
