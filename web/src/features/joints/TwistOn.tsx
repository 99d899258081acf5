import { useState } from "react";
import { Choice, Drawer } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { jointsWords } from "../../words/joints";

/** Twist-on connectors divide the trade: both views, the works' rule, the connector's table. */
export function TwistOn({
  joints,
  rule,
  largest,
  onJointsChange,
}: {
  joints: Given["joints"];
  rule: string;
  largest: string;
  onJointsChange: (change: Partial<Given["joints"]>) => void;
}) {
  const rows = joints.twist_rows ?? [];
  const [text, setText] = useState<string | null>(null);
  const shown = rows.map((row) => `${row.size}: ${row.least}-${row.most}`).join(", ");
  return (
    <Drawer name={jointsWords.twistConnectors} hint={jointsWords.practiceDiffers}>
      <div className="grid grid-cols-2 gap-4 text-sm">
        <p>
          <b className="block">{jointsWords.forWord}</b>
          {jointsWords.listedQuickEasy}
        </p>
        <p>
          <b className="block">{jointsWords.against}</b>
          {jointsWords.motorVibratesLeads}
        </p>
      </div>
      <p>
        <b>{jointsWords.plantRule}</b> {jointsWords.largestConductorAwg(rule, largest)}
      </p>
      <Choice
        label={jointsWords.motor}
        options={[
          { value: true, label: jointsWords.machine },
          { value: false, label: jointsWords.building },
        ]}
        value={joints.is_machine ?? true}
        onValueChange={(is_machine) => onJointsChange({ is_machine })}
      />
      <label className="block">
        <span className="block text-sm text-soft">{jointsWords.connectorsOwnTable}</span>
        <input
          className="field"
          value={text ?? shown}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (text === null) return;
            onJointsChange({
              twist_rows: [...text.matchAll(/([\d/]+)\s*:\s*(\d+)\s*-\s*(\d+)/g)].map(
                ([, size = "", least, most]) => ({
                  size,
                  least: Number(least),
                  most: Number(most),
                }),
              ),
            });
            setText(null);
          }}
        />
      </label>
    </Drawer>
  );
}
