import { Link } from "react-router";
import { Stop } from "../../components/shapes";
import { rehearseWords } from "../../words/rehearse";

export interface HeldProps {
  /** The hazards at which the rehearsal was held; none while it runs. */
  hazards: readonly { code: string; device: string; name: string; sentence: string }[];
  base: string;
  onRewind: () => void;
  onContinue: () => void;
}

/** The rehearsal stops at a hazard: what happened, and the three ways on. */
export function Held({ hazards, base, onRewind, onContinue }: HeldProps) {
  if (hazards.length === 0) return null;
  return (
    <Stop title={hazards[0]?.name ?? ""}>
      {hazards.map((hazard) => (
        <p key={`${hazard.code} ${hazard.device}`} data-testid="chain">
          {hazard.sentence}
        </p>
      ))}
      <div className="flex flex-wrap gap-3">
        <button type="button" className="control" onClick={onRewind}>
          {rehearseWords.rewindS}
        </button>
        <Link className="control" to={`${base}/starter`}>
          {rehearseWords.changeStarter}
        </Link>
        <button type="button" className="control" onClick={onContinue}>
          {rehearseWords.continue}
        </button>
      </div>
    </Stop>
  );
}
