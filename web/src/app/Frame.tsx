import { HardDriveDownload, Keyboard, Moon, Search, Sun } from "lucide-react";
import { Suspense, useEffect, useState } from "react";
import { useWords } from "./i18n";
import { NavLink, Outlet, useLocation } from "react-router";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { getShelvesState, getShoppingList, type OverviewView, type ShelvesState } from "../api";
import { amount, shortDay, unitOf } from "../ui/format";
import { Drawer } from "../ui/Drawer";
import { Loading } from "../ui/states";
import { eaterDesks } from "../rooms/aim/desk";
import { recipeDesks } from "../rooms/recipes/desk";
import { Finder } from "./Finder";
import { freshen } from "./freshen";
import { useOverview } from "./Header";
import { KeyList } from "./KeyList";
import { useKeys } from "./keys";
import { NeverAsked } from "./NeverAsked";
import { Notices } from "./notices";
import { queryKeys } from "./queryKeys";
import { useQuiet } from "./quiet";
import { useToday } from "./useToday";

/** The rooms on the bar of a phone; the others are behind "more". */
const phoneRooms = new Set<string>(["shop", "cook", "pack", "eat"]);

const rooms = ["aim", "foods", "recipes", "plan", "shop", "cook", "pack", "keep", "eat", "review"] as const;

type Shown = "keys" | "finder" | "more" | null;

/** The frame: the week's steps at the left, each with one line of state; the room beside it. On a phone the steps are at the foot. */
export function Frame() {
  const { t } = useWords();
  const [open, setOpen] = useState<Shown>(null);
  useKeys({ keys: () => setOpen("keys"), finder: () => setOpen("finder") });
  // One drawer is closed, and has given the focus back, before another takes it.
  const afterwards = (what: Shown) => {
    setOpen(null);
    window.setTimeout(() => setOpen(what), 80);
  };
  const data = useOverview();
  useToday();
  const queries = useQueryClient();
  useEffect(() => {
    recipeDesks.resume(t("silent"), () => void freshen(queries, "recipe"));
    eaterDesks.resume(t("silent"), () => void freshen(queries, "eater"));
  }, [queries, t]);
  const shelves = useShelvesState();
  const next = data ? nextRoom(data, shelves) : null;
  const place = useLocation().pathname;
  const isBehind = rooms.some((name) => place.startsWith(`/${name}`) && !phoneRooms.has(name));
  useEffect(() => {
    const room = rooms.find((name) => place.startsWith(`/${name}`));
    const page = room ? t(`rooms.${room}`) : place === "/backup" ? t("backup") : null;
    document.title = page ? `${page} · ${t("name")}` : t("name");
  }, [place, t]);

  return (
    <div className="flex h-dvh max-md:flex-col-reverse">
      <a
        href="#room"
        className="sr-only focus:not-sr-only focus:absolute focus:z-40 focus:bg-panel focus:p-3"
      >
        {t("skip")}
      </a>
      <nav
        aria-label={t("rail")}
        className="no-print flex w-[200px] shrink-0 flex-col overflow-auto border-r border-rim low:w-[130px] max-md:w-full max-md:border-t max-md:border-r-0"
      >
        <p className="flex items-center gap-2 px-4 pt-4 pb-3 font-title text-lg font-bold max-md:hidden low:hidden">
          <img src="/tern.svg" alt="" width={28} height={28} />
          <span className="relative">
            {t("name")}
            {data?.isDemo && (
              <span className="absolute top-full left-0 -mt-1 font-sans text-xs font-normal whitespace-nowrap">
                {t("demo")}
              </span>
            )}
          </span>
        </p>
        <ul className="max-md:flex">
          {rooms.map((room) => (
            <li key={room} className={phoneRooms.has(room) ? "max-md:flex-1" : "max-md:hidden"}>
              <NavLink
                to={`/${room}`}
                className={({ isActive }) =>
                  `block border-l-3 px-4 py-2 low:py-1 max-md:min-h-14 max-md:border-t-3 max-md:border-l-0 max-md:px-1 max-md:pt-3 max-md:text-center ${isActive ? "border-sea bg-panel" : "border-transparent"}`
                }
              >
                <span className="font-title font-bold">
                  {t(`rooms.${room}`)}
                  {next === room && (
                    <span aria-hidden className="ml-2 inline-block size-2.5 rounded-full bg-next" />
                  )}
                </span>
                <span
                  className={`block min-h-[1.35em] text-xs max-md:hidden low:hidden ${next === room ? "font-bold text-next-text" : "text-soft"}`}
                >
                  {data ? <StateLine room={room} overview={data} /> : " "}
                </span>
              </NavLink>
            </li>
          ))}
          <li className="md:hidden max-md:flex-1">
            <button
              className={`flex min-h-14 w-full items-start justify-center border-t-3 px-1 pt-3 font-title font-bold ${isBehind ? "border-sea bg-panel" : "border-transparent"}`}
              aria-expanded={open === "more"}
              onClick={() => setOpen("more")}
            >
              {t("more.open")}
            </button>
          </li>
        </ul>
        <div className="mt-auto flex flex-col items-start gap-1 p-3 text-sm text-soft max-md:hidden">
          <Tools show={setOpen} />
        </div>
      </nav>
      <Notices />
      <div id="room" className="relative flex min-h-0 min-w-0 flex-1 flex-col">
        {data && <NeverAsked excluded={data.excluded} />}
        <Suspense fallback={<Loading isPage />}>
          <Outlet />
        </Suspense>
      </div>
      <Drawer open={open === "more"} close={() => setOpen(null)} title={t("more.title")}>
        <ul className="mb-4 divide-y divide-line border-y border-line">
          {rooms
            .filter((room) => !phoneRooms.has(room))
            .map((room) => (
              <li key={room}>
                <NavLink to={`/${room}`} className="block py-3" onClick={() => setOpen(null)}>
                  <span className="font-title font-bold">{t(`rooms.${room}`)}</span>{" "}
                  <span className="text-sm text-soft">
                    {data ? <StateLine room={room} overview={data} /> : " "}
                  </span>
                </NavLink>
              </li>
            ))}
        </ul>
        <div className="flex flex-col items-start gap-2">
          <Tools show={afterwards} leave={() => setOpen(null)} />
        </div>
        {data?.isDemo && <p className="mt-4 text-sm text-soft">{t("demo")}</p>}
      </Drawer>
      <KeyList open={open === "keys"} close={() => setOpen(null)} />
      <Finder open={open === "finder"} close={() => setOpen(null)} />
    </div>
  );
}

/** The step to do next: someone to plan for, something to cook, a batch to pack, boxes to freeze or thaw, days to fill, then eating. */
function nextRoom(overview: OverviewView, shelves: ShelvesState | undefined): (typeof rooms)[number] {
  if (overview.eaters === 0) return "aim";
  if (overview.recipes === 0) return "recipes";
  if (overview.cooking) return "cook";
  if (overview.batchesWaiting > 0) return "pack";
  if (shelves && shelves.freeze + shelves.thaw > 0) return "keep";
  if (overview.batchesDue > 0) return "cook";
  return overview.shelfBoxes > 0 ? "plan" : "eat";
}

function StateLine({ room, overview }: { room: (typeof rooms)[number]; overview: OverviewView }) {
  const { t } = useWords();
  const quiet = useQuiet();
  switch (room) {
    case "aim":
      return t("state.aim", { count: overview.eaters });
    case "foods":
      return t("state.foods", { count: overview.foods });
    case "recipes":
      return t("state.recipes", { count: overview.recipes });
    case "plan":
      return overview.laidDays && !quiet
        ? t("state.plan", { fit: overview.fitDays, count: overview.laidDays })
        : t(overview.laidDays ? "state.planLaid" : "state.planEmpty", { count: overview.laidDays });
    case "shop":
      return <ToBuy />;
    case "cook":
      if (overview.cooking) return t("state.cooking");
      if (overview.batchesDue > 0) return t("state.cook", { count: overview.batchesDue });
      return overview.nextPrepDay
        ? t("state.prepDay", { day: shortDay(overview.nextPrepDay) })
        : t("state.noPrepDay");
    case "pack":
      return t("state.pack", { count: overview.batchesWaiting });
    case "keep":
      return <ToKeep />;
    case "eat": {
      if (overview.left === null || !overview.leading || quiet) return t("state.eat");
      const key = overview.left < 0 ? "state.over" : "state.left";
      return t(key, {
        amount: amount(overview.leading, Math.abs(overview.left)),
        unit: unitOf(overview.leading),
      });
    }
    case "review":
      return t(quiet ? "state.reviewQuiet" : "state.review");
  }
}

/** What is to be done with boxes: read apart from the other lines, since every box is looked at for it. */
const useShelvesState = () =>
  useQuery({
    queryKey: queryKeys.shelvesState(),
    queryFn: async () => (await getShelvesState()).data!,
    refetchInterval: 60000,
  }).data;

function ToKeep() {
  const { t } = useWords();
  const state = useShelvesState();
  if (!state) return " ";
  if (state.over > 0) return t("state.past", { count: state.over });
  if (state.freeze > 0) return t("state.freeze", { count: state.freeze });
  if (state.thaw > 0) return t("state.thaw", { count: state.thaw });
  if (state.eatFirst > 0) return t("state.eatFirst", { count: state.eatFirst });
  return t("state.keep", { count: state.boxes });
}

/** How much is still to be bought. Typing in a recipe does not have it made anew: it is asked for again by and by. */
function ToBuy() {
  const { t } = useWords();
  const { data } = useQuery({
    queryKey: queryKeys.toBuy(),
    queryFn: async () => (await getShoppingList()).data!.toBuy,
    refetchInterval: 60000,
  });
  return data === undefined ? " " : t("state.shop", { count: data });
}

/** What helps in every room: find, the keys, the ground, the backup. */
function Tools({ show, leave }: { show: (what: Shown) => void; leave?: () => void }) {
  const { t } = useWords();
  return (
    <>
      <button className="flex min-h-8 items-center gap-2 max-md:min-h-11" onClick={() => show("finder")}>
        <Search size={16} aria-hidden /> {t("finder.open")} <kbd className="text-xs max-md:hidden">/</kbd>
      </button>
      <button className="flex min-h-8 items-center gap-2 max-md:min-h-11" onClick={() => show("keys")}>
        <Keyboard size={16} aria-hidden /> {t("keys.open")} <kbd className="text-xs max-md:hidden">?</kbd>
      </button>
      <Ground />
      <NavLink to="/backup" className="flex min-h-8 items-center gap-2 max-md:min-h-11" onClick={leave}>
        <HardDriveDownload size={16} aria-hidden /> {t("backup")}
      </NavLink>
    </>
  );
}

/** Day kitchen or night kitchen, remembered. */
function Ground() {
  const { t } = useWords();
  const [ground, setGround] = useState(document.documentElement.dataset.ground ?? "light");
  const other = ground === "dark" ? "light" : "dark";
  const change = () => {
    document.documentElement.dataset.ground = other;
    localStorage.setItem("tern.ground", other);
    setGround(other);
  };
  return (
    <button className="flex min-h-8 items-center gap-2 max-md:min-h-11" onClick={change}>
      {other === "dark" ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}{" "}
      {t(`ground.${other}`)}
    </button>
  );
}
