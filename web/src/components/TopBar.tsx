import { useQueryClient } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { signOut } from "../api/client";
import { type Lamp, type Seat, useDevice, useIsNarrow } from "../state/device";
import { erasePlants } from "../state/onDevice";
import { frameWords } from "../words/frame";
import { Sheet } from "./Sheet";

export interface TopBarProps {
  crumbs: readonly { name: string; to?: string }[];
  /** Whether what was typed is kept; empty where nothing is typed. */
  line?: string;
  who: string;
  onHelp: () => void;
}

const item =
  "min-h-8 px-2.5 text-sm font-semibold first:rounded-l-[9px] last:rounded-r-[9px] data-[state=on]:bg-ink data-[state=on]:text-ground hover:not-data-[state=on]:bg-sunk in-data-[seat=panel]:min-h-14";

/** Seat, lamp, sign-out and help: in the bar at the desk, in a sheet on a phone. */
function Settings({ who, onHelp }: { who: string; onHelp: () => void }) {
  const device = useDevice();
  const navigate = useNavigate();
  const client = useQueryClient();
  return (
    <>
      <ToggleGroup.Root
        type="single"
        value={device.seat}
        onValueChange={(value) => value && device.onSeatChange(value as Seat)}
        aria-label={frameWords.seat}
        className="inline-flex rounded-control border-[1.5px] border-edge"
      >
        <ToggleGroup.Item value="desk" className={item}>
          {frameWords.desk}
        </ToggleGroup.Item>
        <ToggleGroup.Item value="panel" className={item}>
          {frameWords.panel}
        </ToggleGroup.Item>
      </ToggleGroup.Root>
      <ToggleGroup.Root
        type="single"
        value={device.lamp}
        onValueChange={(value) => value && device.onLampChange(value as Lamp)}
        aria-label={frameWords.theme}
        className="inline-flex rounded-control border-[1.5px] border-edge"
      >
        <ToggleGroup.Item value="light" className={item}>
          {frameWords.light}
        </ToggleGroup.Item>
        <ToggleGroup.Item value="dark" className={item}>
          {frameWords.dark}
        </ToggleGroup.Item>
        <ToggleGroup.Item value="auto" className={item}>
          {frameWords.auto}
        </ToggleGroup.Item>
      </ToggleGroup.Root>
      <Link to="/me" className="ask" title={frameWords.signed(who)}>
        {frameWords.account}
      </Link>
      <button
        type="button"
        className="ask"
        onClick={async () => {
          await signOut();
          await erasePlants();
          client.clear();
          navigate("/sign-in");
        }}
      >
        {frameWords.signOut}
      </button>
      <button type="button" className="ask" aria-keyshortcuts="?" onClick={onHelp}>
        {frameWords.keysHelp}
      </button>
    </>
  );
}

/** Where you are, which seat, which lamp, whether it is kept, who you are, help last. */
export function TopBar({ crumbs, line = "", who, onHelp }: TopBarProps) {
  const isNarrow = useIsNarrow();
  const [isOpen, setOpen] = useState(false);
  const shown = isNarrow
    ? crumbs.filter((crumb, place) => crumb.to || place === crumbs.length - 1)
    : crumbs;
  return (
    <header className="sticky top-0 z-20 border-b-2 border-ink bg-sheet print:hidden">
      <a
        href="#headline"
        className="absolute -top-20 left-2 z-30 bg-plum px-3 py-2 font-semibold text-on-plum focus:top-1"
      >
        {frameWords.skipContent}
      </a>
      <div className="mx-auto flex min-h-14 max-w-[1280px] items-center gap-x-4 px-4 py-1.5">
        {!isNarrow && (
          <Link
            to="/"
            className="font-headline text-xl font-bold tracking-wide text-plum uppercase no-underline"
          >
            {frameWords.evenCoil}
          </Link>
        )}
        <nav aria-label={frameWords.whereYou} className="min-w-0 flex-1">
          <ol className="flex min-w-0 items-center gap-x-2">
            {shown.map((crumb) => (
              <li
                key={crumb.name}
                className="min-w-0 shrink truncate before:mr-2 before:text-edge before:content-['›'] first:shrink-0 first:before:hidden"
              >
                {crumb.to ? (
                  <Link
                    to={crumb.to}
                    className="inline-flex min-h-8 items-center text-ink underline underline-offset-3 in-data-[seat=panel]:min-h-14"
                  >
                    {isNarrow ? frameWords.motors : crumb.name}
                  </Link>
                ) : (
                  <span className="font-semibold">{crumb.name}</span>
                )}
              </li>
            ))}
          </ol>
        </nav>
        <p role="status" className="shrink-0 text-sm text-soft">
          {line}
        </p>
        {isNarrow ? (
          <button type="button" className="control px-3" onClick={() => setOpen(true)}>
            {frameWords.menu}
          </button>
        ) : (
          <Settings who={who} onHelp={onHelp} />
        )}
      </div>
      {isNarrow && (
        <Sheet isOpen={isOpen} onOpenChange={setOpen} title={frameWords.menu}>
          <div className="flex flex-col items-start gap-4">
            <Settings
              who={who}
              onHelp={() => {
                setOpen(false);
                onHelp();
              }}
            />
          </div>
        </Sheet>
      )}
    </header>
  );
}
