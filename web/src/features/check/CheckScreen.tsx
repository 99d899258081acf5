import { Link } from "react-router";
import { Waiting } from "../../components/Edges";
import { Drawer } from "../../components/inputs";
import { JobFrame } from "../../components/JobFrame";
import { useRoom } from "../../components/JobRoom";
import { Stop } from "../../components/shapes";
import { checkWords } from "../../words/check";
import { words } from "../../words/common";
import { CheckRow } from "./CheckRow";
import { keyOf, useDeadCheck } from "./useDeadCheck";

/** Does the dead circuit read as it was drawn, and if not, which single fault explains it? */
export function CheckScreen() {
  const { place, state } = useRoom();
  const { found, isOld, slab, taken, take, groups } = useDeadCheck(place.works, state);
  const base = `/w/${place.works}/m/${encodeURIComponent(place.tag)}/j/${place.number}`;
  return (
    <JobFrame
      place={place}
      step="check"
      state={state}
      keys={[]}
      margin={
        found &&
        found.suspects.length > 0 && (
          <section
            aria-labelledby="suspects"
            className="space-y-2 border-2 border-live bg-sheet p-4 lg:sticky lg:top-20"
            data-testid="suspects"
          >
            <h2 id="suspects" className="font-headline text-xl font-bold text-live uppercase">
              {checkWords.whatWouldExplain}
            </h2>
            <p className="text-sm text-soft">{checkWords.singleFaultsExplain}</p>
            <ol className="list-decimal space-y-1.5 pl-5">
              {found.suspects.map((one) => (
                <li key={one.text}>
                  {one.text}{" "}
                  <span className="text-sm text-soft">
                    {checkWords.explains(one.explains, one.of)}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )
      }
      primary={
        <Link to={`${base}/rehearse`} className="control md:w-auto!" data-primary="true">
          {checkWords.rehearse}
        </Link>
      }
      others={
        <>
          <Link to={`${base}/panel`} className="control">
            {words.steps.panel}
          </Link>
          <Link to={`${base}/drawings`} className="control">
            {checkWords.drawings}
          </Link>
        </>
      }
    >
      {slab}
      {!found ? (
        !slab && <Waiting />
      ) : found.checks.length === 0 ? (
        <p>
          {checkWords.thereNoCircuit}{" "}
          <Link className="ask" to={`${base}/starter`}>
            {checkWords.chooseStarter}
          </Link>
        </p>
      ) : (
        <div className="space-y-5">
          <Stop strength="hold" title={checkWords.firstLockOut}>
            <p>
              {found.apart.length > 0 && checkWords.takeApart(found.apart.join(", "))}
              {checkWords.lineSideMain}{" "}
              <span className="font-mono text-sm">{found.line_side.join(", ")}</span>.
            </p>
          </Stop>
          <p className="text-soft">
            {checkWords.countedChecksReading(found.checks.length, found.states)}
            {found.untold.length > 0 && checkWords.notDetectedAny(found.untold.join(", "))}
          </p>
          {found.blind.length > 0 && (
            <Drawer
              name={checkWords.lookAt}
              hint={checkWords.notShown(found.shown, found.mistakes)}
            >
              <ul className="list-disc space-y-1 pl-5" data-testid="blind">
                {found.blind.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            </Drawer>
          )}
          {found.evidence.length > 0 && (
            <p data-testid="evidence">
              {checkWords.confirmedWires(
                found.evidence.filter((one) => one.confirmed).length,
                found.evidence.filter((one) => !one.confirmed).length,
              )}{" "}
              <span className="font-mono text-live">
                {found.evidence
                  .filter((one) => !one.confirmed)
                  .map((one) => one.ends)
                  .join(", ")}
              </span>
            </p>
          )}
          {groups.map((group) => (
            <section key={group.held} aria-label={group.held}>
              <h2 className="stamp mb-1.5">{group.held}</h2>
              <ul className="space-y-2">
                {group.checks.map((check) => {
                  const at = taken.findIndex((item) => keyOf(item) === keyOf(check));
                  const reading = at < 0 ? undefined : taken[at];
                  return (
                    <CheckRow
                      key={keyOf(check)}
                      check={check}
                      reading={reading}
                      // an older answer counts the readings otherwise: what it says of one is not said of this
                      holds={at < 0 || isOld ? undefined : (found.readings[at]?.holds ?? undefined)}
                      onTake={(ohms) => take(check, ohms)}
                      onRest={() => void state.keep()}
                    />
                  );
                })}
              </ul>
            </section>
          ))}
        </div>
      )}
    </JobFrame>
  );
}
