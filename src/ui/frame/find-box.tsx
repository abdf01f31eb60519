"use client";

import { Command } from "cmdk";
import { Search } from "lucide-react";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { Slip } from "./dialog";
import { useCharacter } from "./use-keys";

interface Found {
  kind: string;
  title: string;
  detail: string;
  href: string;
}

/** One box that reaches everything. On a build sheet it also reaches that sheet's findings ("d2") and steps. */
export function FindBox() {
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
        <Finder close={() => setOpen(false)} />
      </Slip>
    </>
  );
}

function Finder({ close }: { close: () => void }) {
  const [query, setQuery] = useState("");
  const [found, setFound] = useState<Found[] | null>(null);
  const router = useRouter();
  const build = /^\/builds\/(b-[^/]+)/.exec(usePathname())?.[1] ?? "";
  useEffect(() => {
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      if (query.trim() === "") return setFound(null);
      const answer = await fetch(`/api/v1/find?q=${encodeURIComponent(query)}&build=${build}`, {
        signal: stop.signal,
      }).catch(() => null);
      if (answer?.ok) setFound((await answer.json()) as Found[]);
    }, 120);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [query, build]);
  return (
    <Command shouldFilter={false} label="Find">
      <Command.Input
        autoFocus
        value={query}
        onValueChange={setQuery}
        className="input text-base"
        placeholder="name, serial, MAC, address, sheet number, d2"
      />
      <Command.List className="mt-3 max-h-[50dvh] overflow-auto">
        {found?.length === 0 && (
          <Command.Empty className="quiet py-2">Nothing carries these words.</Command.Empty>
        )}
        {found?.map((f) => (
          <Command.Item
            key={f.kind + f.href + f.title}
            value={f.kind + f.href + f.title}
            onSelect={() => {
              close();
              router.push(f.href);
            }}
            className="flex cursor-pointer items-baseline gap-3 border-b px-1 py-1 data-[selected=true]:bg-base-200 border-base-300"
          >
            <span className="label w-16 shrink-0">{f.kind}</span>
            <span className="font-medium">{f.title}</span>
            <span className="quiet value ml-auto truncate text-[0.86rem]">{f.detail}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
