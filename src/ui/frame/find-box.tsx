"use client";

import { Command as Box } from "cmdk";
import { Search } from "lucide-react";
import { usePathname, useRouter } from "next/navigation";
import { startTransition, useEffect, useState } from "react";
import type { FindAnswer } from "@/contract";
import { commandsFor, type Command } from "./commands";
import { Slip } from "./dialog";
import { flipTheme } from "./theme-switch";
import { useCharacter } from "./use-keys";

/** One box that reaches everything: what is kept, what can be done, and on a build sheet its zones, findings and steps. */
export function FindBox({ begin }: { begin: () => Promise<void> }) {
  const [open, setOpen] = useState(false);
  useCharacter("/", () => setOpen(true));
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex cursor-pointer items-center gap-2 border px-2 py-0.5 text-[0.93rem] border-base-300"
        aria-label="Find"
      >
        <Search size={14} aria-hidden="true" />
        <span className="hidden lg:inline">Find</span>
        <span className="kbd hidden lg:inline-block">/</span>
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Find">
        <Finder close={() => setOpen(false)} begin={begin} />
      </Slip>
    </>
  );
}

/** What the server finds of a query, a moment after it was typed; null while nothing is asked. */
function useFound(query: string, build: string): FindAnswer | null {
  const [answer, setAnswer] = useState<{ query: string; found: FindAnswer } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      if (query.trim() === "") return setAnswer(null);
      const got = await fetch(`/api/v1/find?q=${encodeURIComponent(query)}&build=${build}`, {
        signal: stop.signal,
      }).catch(() => null);
      if (got?.ok) setAnswer({ query, found: (await got.json()) as FindAnswer });
    }, 120);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [query, build]);
  // What was found of other words is not shown any more: Enter would lead to it.
  return answer?.query === query ? answer.found : null;
}

function Finder({ close, begin }: { close: () => void; begin: () => Promise<void> }) {
  const [query, setQuery] = useState("");
  const router = useRouter();
  const build = /^\/builds\/(b-[^/]+)/.exec(usePathname())?.[1] ?? "";
  const answer = useFound(query, build);
  const go = (href: string): void => {
    const [path, place] = href.split("#");
    if (!place || path !== location.pathname) return router.push(href);
    // A place of the page that is open: the page hears of it as of any other change of the address.
    history.pushState(null, "", href);
    dispatchEvent(new HashChangeEvent("hashchange"));
  };
  const run = ({ does }: Command): void => {
    if (does === "flip theme") flipTheme();
    else if (does === "show keys") requestAnimationFrame(showKeys);
    else if (does === "new sheet") startTransition(begin);
    else go(does.href);
  };
  const commands = commandsFor(answer?.meant ?? query, build);
  // A command that begins with what was typed is what was meant; else what is kept goes first.
  const isMeant = ({ title }: Command): boolean => title.toLowerCase().startsWith(query.trim().toLowerCase());
  const lines: LineProps[] = [
    ...commands.filter(isMeant).map((c) => ({ ...c, act: () => run(c) })),
    ...(answer?.found ?? []).map((f) => ({ ...f, act: () => go(f.href) })),
    ...commands.filter((c) => !isMeant(c)).map((c) => ({ ...c, act: () => run(c) })),
  ];
  const [chosen, setChosen] = useState("");
  const stands = lines.some((l) => valueOf(l) === chosen);
  return (
    <Box
      shouldFilter={false}
      label="Find"
      // What is found later stands first all the same, and Enter leads to it.
      value={stands ? chosen : lines[0] ? valueOf(lines[0]) : ""}
      onValueChange={setChosen}
    >
      <Box.Input
        autoFocus
        value={query}
        onValueChange={(typed) => {
          setQuery(typed);
          setChosen("");
        }}
        className="input text-base"
        placeholder="Name, serial, MAC, address, sheet number, D2, or a command"
      />
      {answer && answer.explained.length > 0 && (
        <div className="mt-2 border-l-2 border-current pl-3" role="status">
          {answer.explained.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </div>
      )}
      {answer?.meant && (
        <p className="mt-2" role="status">
          No exact match. Showing results for <b>{answer.meant}</b>.
        </p>
      )}
      <Box.List className="mt-3 max-h-[50dvh] overflow-auto">
        {answer && lines.length === 0 && answer.explained.length === 0 && (
          <Box.Empty className="quiet py-2">No matches.</Box.Empty>
        )}
        {lines.map((line) => (
          <Line key={valueOf(line)} {...line} act={() => (close(), line.act())} />
        ))}
      </Box.List>
    </Box>
  );
}

interface LineProps {
  kind: string;
  title: string;
  detail: string;
  act: () => void;
}

const valueOf = ({ kind, title, detail }: Omit<LineProps, "act">): string =>
  `${kind} ${title} ${detail}`.trim();

/** The sheet of keys lies in the frame, behind its own button. */
const showKeys = (): void => document.querySelector<HTMLElement>("button[data-keys]")?.click();

const Line = ({ kind, title, detail, act }: LineProps) => (
  <Box.Item
    value={valueOf({ kind, title, detail })}
    onSelect={act}
    className="flex cursor-pointer items-baseline gap-3 border-b px-1 py-1 data-[selected=true]:bg-base-200 border-base-300"
  >
    <span className="label w-16 shrink-0">{kind}</span>
    <span className="min-w-[55%] font-medium">{title}</span>
    <span className="quiet value ml-auto text-right text-[0.86rem] [overflow-wrap:anywhere]">{detail}</span>
  </Box.Item>
);
