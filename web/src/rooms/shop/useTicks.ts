import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { getShoppingList, tickOff, troubleOf, type ShopListView, type TickRequest } from "../../api";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";

const place = "tern.shop.ticks";
const tryAgainAfter = 5000;
const othersAfter = 5000;

// What anyone could have written into a link or a browser: only what the host would take stands beside the others.
const isTick = (tick: TickRequest) =>
  typeof tick?.key === "string" &&
  Number.isFinite(tick.grams) &&
  typeof tick.at === "string" &&
  !Number.isNaN(Date.parse(tick.at));

/** What waits where the browser keeps nothing: in this tab only. */
let inThisTab: TickRequest[] = [];

function kept(): TickRequest[] {
  try {
    const ticks = JSON.parse(localStorage.getItem(place) ?? "[]") as TickRequest[];
    return [...ticks.filter(isTick), ...inThisTab];
  } catch {
    return inThisTab;
  }
}

function keepAll(ticks: TickRequest[]) {
  try {
    localStorage.setItem(place, JSON.stringify(ticks));
    inThisTab = [];
  } catch {
    inThisTab = ticks;
  }
}

/** What a page taken along says in its link: its ticks by their keys. */
function broughtHome(hash: string): TickRequest[] {
  if (!hash.startsWith("#ticks=")) return [];
  try {
    const said = JSON.parse(decodeURIComponent(hash.slice(7))) as Record<
      string,
      { t: boolean; g: number; at: string }
    >;
    return Object.entries(said)
      .map(([key, { t, g, at }]) => ({ key, isTicked: t, grams: g, at }))
      .filter(isTick);
  } catch {
    return [];
  }
}

/** Puts the ticks of a page taken along among those that wait to be sent. @returns how many. */
function takeHome(): number {
  const home = broughtHome(window.location.hash);
  if (home.length === 0) return 0;
  keepAll([...kept(), ...home]);
  window.history.replaceState(null, "", window.location.pathname + window.location.search);
  return home.length;
}

export const useShoppingList = (until: string | null) =>
  useQuery({
    queryKey: queryKeys.shopping(until),
    queryFn: async () => (await getShoppingList({ query: { until: until ?? undefined } })).data!,
    placeholderData: (before) => before,
    // Somebody else may be ticking.
    refetchInterval: othersAfter,
  });

/**
 * Ticks that survive a reload and a lost connection: each is written on this device first and sent then, again and again until the host has it. Of one thing the
 * last tick counts, whoever made it.
 */
export function useTicks(until: string | null) {
  const { t } = useWords("shop");
  const say = useSay();
  const queries = useQueryClient();
  const [home] = useState(takeHome);
  const [waiting, setWaiting] = useState<TickRequest[]>(kept);
  const [isSilent, setIsSilent] = useState(false);
  const running = useRef<Promise<void>>(Promise.resolve());

  const keep = useCallback((change: (ticks: TickRequest[]) => TickRequest[]) => {
    const next = change(kept());
    keepAll(next);
    setWaiting(next);
  }, []);

  const send = useCallback(async () => {
    const ticks = kept().slice(0, 200);
    if (ticks.length === 0) return;
    const sent = new Set(ticks.map(({ key, at }) => key + at));
    try {
      const { data } = await tickOff({ query: { until: until ?? undefined }, body: { ticks } });
      keep((now) => now.filter(({ key, at }) => !sent.has(key + at)));
      setIsSilent(false);
      queries.setQueryData<ShopListView>(queryKeys.shopping(until), data!.list);
      if (data!.gone.length > 0) say(t("gone", { names: data!.gone.join(", ") }));
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("app:silent"));
      // Only what the host names as wrong is given up; all else waits, whatever ails it.
      const refused = trouble.status === 422 ? /^ticks\[(\d+)\]/.exec(trouble.field ?? "") : null;
      const wrong = refused ? ticks[Number(refused[1])] : undefined;
      if (!wrong) return setIsSilent(true);
      keep((now) => now.filter(({ key, at }) => key !== wrong.key || at !== wrong.at));
      say(trouble.detail ?? "", { trouble: true });
    }
  }, [keep, queries, say, t, until]);

  const flush = useCallback(() => (running.current = running.current.then(send)), [send]);

  useEffect(() => {
    if (home > 0) say(t("home", { count: home }));
    void flush();
    const comeHome = () => {
      const count = takeHome();
      if (count === 0) return;
      setWaiting(kept());
      say(t("home", { count }));
      void flush();
    };
    const timer = window.setInterval(() => void flush(), tryAgainAfter);
    window.addEventListener("online", flush);
    window.addEventListener("hashchange", comeHome);
    return () => {
      window.clearInterval(timer);
      window.removeEventListener("online", flush);
      window.removeEventListener("hashchange", comeHome);
    };
  }, [flush, home, say, t]);

  const tick = (key: string, isTicked: boolean, grams: number) => {
    keep((now) => [...now, { key, isTicked, grams, at: new Date().toISOString() }]);
    void flush();
  };
  // What was said last of each thing, and is not known to have arrived.
  const said = new Map(waiting.map((one) => [one.key, one.isTicked]));
  return { tick, said, count: waiting.length, isSilent, flush };
}
