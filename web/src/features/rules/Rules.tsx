import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { Waiting } from "../../components/Edges";
import { Choice, Words } from "../../components/inputs";
import { ProblemSlab, Shout } from "../../components/shapes";
import { TopBar } from "../../components/TopBar";
import { useSession, useWorks } from "../../state/session";
import { inPlantNames } from "../../words/names";
import { rulesWords } from "../../words/rules";
import { Amendments } from "./Amendments";
import { type RulesIn, useRules } from "./useRules";

/** The rules of this plant where practice differs; they apply unless a job says otherwise. */
export function Rules() {
  const { works: slug = "" } = useParams();
  const session = useSession();
  const works = useWorks(slug);
  const { refusal, set } = useRules(works);
  useEffect(() => {
    document.title = rulesWords.plantRulesEven;
  }, []);
  if (!works) return <Waiting />;
  return (
    <>
      <TopBar
        crumbs={[{ name: works.name, to: `/w/${slug}` }, { name: rulesWords.plantRules }]}
        who={session.data?.display_name ?? ""}
        onHelp={() => undefined}
      />
      <main className="mx-auto max-w-[880px] space-y-6 px-4 pt-4 pb-24">
        <Shout>{rulesWords.plantRules}</Shout>
        {refusal && <ProblemSlab problem={refusal.problem} />}
        <section className="space-y-2" aria-labelledby="code">
          <h2 id="code" className="stamp">
            {rulesWords.code}
          </h2>
          <Choice
            label={rulesWords.necEdition}
            options={[2017, 2020, 2023].map((value) => ({ value, label: String(value) }))}
            value={works.edition}
            onValueChange={(edition) => void set({ edition: edition as RulesIn["edition"] })}
          />
          <Choice
            label={rulesWords.whenLimitFalls}
            options={[
              { value: "main_rule", label: rulesWords.mainRuleNot },
              { value: "next_size_up", label: rulesWords.nextSizeUp },
            ]}
            value={works.rating_rule}
            onValueChange={(rating_rule) =>
              void set({ rating_rule: rating_rule as RulesIn["rating_rule"] })
            }
          />
          <Reason
            key={works.rating_rule_reason}
            value={works.rating_rule_reason}
            onKeep={(rating_rule_reason) => void set({ rating_rule_reason })}
          />
        </section>
        <Amendments
          amendments={works.amendments}
          onKeep={(amendments) => void set({ amendments })}
        />
        <section className="space-y-2" aria-labelledby="habits">
          <h2 id="habits" className="stamp">
            {rulesWords.practice}
          </h2>
          <Choice
            label={rulesWords.reverseExchange}
            options={["L1-L3", "L1-L2", "L2-L3"].map((value) => ({
              value,
              label: inPlantNames(value),
            }))}
            value={works.swap_lines}
            onValueChange={(swap_lines) =>
              void set({ swap_lines: swap_lines as RulesIn["swap_lines"] })
            }
          />
        </section>
        <section className="space-y-2" aria-labelledby="wires">
          <h2 id="wires" className="stamp">
            {rulesWords.wiresPanel}
          </h2>
          <Choice
            label={rulesWords.colors}
            options={[
              { value: "nfpa79", label: rulesWords.nfpaRedControl },
              { value: "iec60204", label: rulesWords.iecRedControl },
            ]}
            value={works.wire_colors}
            onValueChange={(wire_colors) =>
              void set({ wire_colors: wire_colors as RulesIn["wire_colors"] })
            }
          />
          <Choice
            label={rulesWords.lines}
            options={[
              { value: "plain", label: rulesWords.oneColor },
              { value: "brown_orange_yellow", label: rulesWords.brownOrangeYellow },
              { value: "black_red_blue", label: rulesWords.blackRedBlue },
              { value: "brown_black_gray", label: rulesWords.brownBlackGray },
              { value: "red_yellow_blue", label: rulesWords.redYellowBlue },
            ]}
            value={works.phase_colors}
            onValueChange={(phase_colors) =>
              void set({ phase_colors: phase_colors as RulesIn["phase_colors"] })
            }
          />
          <Choice
            label={rulesWords.eachEnd}
            options={[
              { value: "number", label: rulesWords.number },
              { value: "number_terminal", label: rulesWords.numberTerminal },
              { value: "far_end", label: rulesWords.numberFarEnd },
            ]}
            value={works.ferrules}
            onValueChange={(ferrules) => void set({ ferrules: ferrules as RulesIn["ferrules"] })}
          />
          <Largest
            key={`control ${works.control_wire}`}
            label={rulesWords.controlConductorAwg}
            value={works.control_wire}
            onKeep={(control_wire) => void set({ control_wire })}
          />
        </section>
        <section className="space-y-2" aria-labelledby="names">
          <h2 id="names" className="stamp">
            {rulesWords.names}
          </h2>
          <Choice
            label={rulesWords.deviceNames}
            options={[
              { value: "iec", label: "KM1, KM2" },
              { value: "iec_k", label: "K1, K2" },
              { value: "nema", label: "M, 2M" },
            ]}
            value={works.device_names}
            onValueChange={(device_names) =>
              void set({ device_names: device_names as RulesIn["device_names"] })
            }
          />
          <Choice
            label={rulesWords.lineNames}
            options={[
              { value: "L1-L2-L3", label: "L1, L2, L3" },
              { value: "R-Y-B", label: "R, Y, B" },
            ]}
            value={works.line_names}
            onValueChange={(line_names) =>
              void set({ line_names: line_names as RulesIn["line_names"] })
            }
          />
          <Choice
            label={rulesWords.tradeTerms}
            options={[
              { value: "american", label: rulesWords.american },
              { value: "iec", label: rulesWords.iecTerms },
            ]}
            value={works.trade_terms}
            onValueChange={(trade_terms) =>
              void set({ trade_terms: trade_terms as RulesIn["trade_terms"] })
            }
          />
        </section>
        <section className="space-y-2" aria-labelledby="at-panel">
          <h2 id="at-panel" className="stamp">
            {rulesWords.atPanel}
          </h2>
          <p className="text-soft">{rulesWords.atPanelSays}</p>
          <Choice
            label={rulesWords.torqueRecord}
            options={WHICH}
            value={works.torque_record}
            onValueChange={(torque_record) => void set({ torque_record })}
          />
          <Choice
            label={rulesWords.secondPerson}
            options={WHICH}
            value={works.second_person}
            onValueChange={(second_person) => void set({ second_person })}
          />
          <Choice
            label={rulesWords.twoSign}
            options={YES_NO}
            value={works.two_sign}
            onValueChange={(two_sign) => void set({ two_sign })}
          />
          <Choice
            label={rulesWords.licenseAsked}
            options={YES_NO}
            value={works.license_asked}
            onValueChange={(license_asked) => void set({ license_asked })}
          />
          <Choice
            label={rulesWords.guestCard}
            options={YES_NO}
            value={works.guest_card}
            onValueChange={(guest_card) => void set({ guest_card })}
          />
        </section>
        <section className="space-y-2" aria-labelledby="twist">
          <h2 id="twist" className="stamp">
            {rulesWords.twistConnectors}
          </h2>
          <p className="text-soft">{rulesWords.practiceDiffersJoints}</p>
          <Choice
            options={[
              { value: "never", label: rulesWords.never },
              { value: "building", label: rulesWords.buildingNotMachines },
              { value: "anywhere", label: rulesWords.whereverListed },
            ]}
            value={works.twist_on}
            onValueChange={(twist_on) => void set({ twist_on: twist_on as RulesIn["twist_on"] })}
          />
          <Largest
            key={works.twist_on_largest}
            value={works.twist_on_largest}
            onKeep={(twist_on_largest) => void set({ twist_on_largest })}
          />
        </section>
        <p>
          <Link className="control" to={`/w/${slug}`}>
            {rulesWords.backMotors}
          </Link>
        </p>
      </main>
    </>
  );
}

const WHICH = [
  { value: "none", label: rulesWords.noWires },
  { value: "power", label: rulesWords.powerWires },
  { value: "all", label: rulesWords.allWires },
] as const;
const YES_NO = [
  { value: true, label: rulesWords.yes },
  { value: false, label: rulesWords.no },
] as const;

function Reason({ value, onKeep }: { value: string; onKeep: (value: string) => void }) {
  const [typed, setTyped] = useState(value);
  return (
    <Words
      label={rulesWords.whyPlantChose}
      value={typed}
      onValueChange={setTyped}
      onRest={() => typed.trim() !== value && onKeep(typed.trim())}
    />
  );
}

function Largest({
  value,
  onKeep,
  label = rulesWords.largestConductorOne,
}: {
  value: string;
  onKeep: (value: string) => void;
  label?: string;
}) {
  const [typed, setTyped] = useState(value);
  return (
    <Words
      label={label}
      value={typed}
      onValueChange={setTyped}
      onRest={() => typed.trim() && typed !== value && onKeep(typed.trim())}
      className="w-52"
    />
  );
}
