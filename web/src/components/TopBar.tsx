import { useQueryClient } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { Link, useNavigate } from "react-router";
import { signOut } from "../api/client";
import { type Lamp, type Seat, useDevice } from "../state/device";

export interface TopBarProps {
  crumbs: readonly { name: string; to?: string }[];
  /** Whether what was typed is kept; empty where nothing is typed. */
  line?: string;
  who: string;
  onHelp: () => void;
}

const item =
  "min-h-8 px-2.5 text-sm font-semibold first:rounded-l-[9px] last:rounded-r-[9px] data-[state=on]:bg-ink data-[state=on]:text-ground hover:not-data-[state=on]:bg-sunk";

/** Where you are, which seat, which lamp, whether it is kept, who you are, help last. */
export function TopBar({ crumbs, line = "", who, onHelp }: TopBarProps) {
  const device = useDevice();
  const navigate = useNavigate();
  const client = useQueryClient();
  return (
    <header className="sticky top-0 z-20 border-b-2 border-ink bg-sheet print:hidden">
      <a
        href="#shout"
        className="absolute -top-20 left-2 z-30 bg-plum px-3 py-2 font-semibold text-on-plum focus:top-1"
      >
        Skip to the work
      </a>
      <div className="mx-auto flex min-h-14 max-w-[1280px] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-1.5">
        <Link
          to="/"
          className="font-shout text-xl font-bold tracking-wide text-plum uppercase no-underline"
        >
          Even Coil
        </Link>
        <nav aria-label="Where you are" className="min-w-0 flex-1">
          <ol className="flex flex-wrap items-center gap-x-2">
            {crumbs.map((crumb) => (
              <li
                key={crumb.name}
                className="truncate before:mr-2 before:text-edge before:content-['›'] first:before:hidden"
              >
                {crumb.to ? (
                  <Link
                    to={crumb.to}
                    className="inline-flex min-h-8 items-center text-ink underline underline-offset-3"
                  >
                    {crumb.name}
                  </Link>
                ) : (
                  <span className="font-semibold">{crumb.name}</span>
                )}
              </li>
            ))}
          </ol>
        </nav>
        <p role="status" className="text-sm text-soft">
          {line}
        </p>
        <ToggleGroup.Root
          type="single"
          value={device.seat}
          onValueChange={(value) => value && device.onSeatChange(value as Seat)}
          aria-label="Seat"
          className="inline-flex rounded-control border-[1.5px] border-edge"
        >
          <ToggleGroup.Item value="desk" className={item}>
            Desk
          </ToggleGroup.Item>
          <ToggleGroup.Item value="panel" className={item}>
            Panel
          </ToggleGroup.Item>
        </ToggleGroup.Root>
        <ToggleGroup.Root
          type="single"
          value={device.lamp}
          onValueChange={(value) => value && device.onLampChange(value as Lamp)}
          aria-label="Lamp"
          className="inline-flex rounded-control border-[1.5px] border-edge"
        >
          <ToggleGroup.Item value="light" className={item}>
            Light
          </ToggleGroup.Item>
          <ToggleGroup.Item value="dark" className={item}>
            Dark
          </ToggleGroup.Item>
          <ToggleGroup.Item value="auto" className={item}>
            Auto
          </ToggleGroup.Item>
        </ToggleGroup.Root>
        <button
          type="button"
          className="ask"
          title={`Signed in as ${who}`}
          onClick={async () => {
            await signOut();
            client.clear();
            navigate("/sign-in");
          }}
        >
          Sign out
        </button>
        <button type="button" className="ask" aria-keyshortcuts="?" onClick={onHelp}>
          Keys and help
        </button>
      </div>
    </header>
  );
}
