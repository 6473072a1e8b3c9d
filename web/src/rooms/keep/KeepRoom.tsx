import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { getShelves, type ShelvesView } from "../../api";
import { EaterTabs, Header, useEatersQuery } from "../../app/Header";
import { addWords, useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { useCautions } from "../../ui/Caution";
import { Amount } from "../../ui/Figures";
import { grams, shortDay } from "../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { Act } from "./Act";
import { ByCode } from "./ByCode";
import { Cooling } from "./Cooling";
import { Rules } from "./Rules";
import { Shelves } from "./Shelves";
import { Tasks } from "./Tasks";
import { byId, useKeepActs } from "./useKeepActs";
import { keep } from "./words";

addWords("keep", keep);

const views = ["shelves", "cooling", "rules"] as const;

/** Fridge, freezer, counter: what is there, for whom, until when, and what to do about it today. */
export default function KeepRoom() {
  const { t } = useWords("keep");
  const [search, setSearch] = useSearchParams();
  const view = views.find((one) => one === search.get("view")) ?? "shelves";
  return (
    <>
      <Header lens={view === "shelves"}>
        <h1 className="text-lg">{t("title")}</h1>
        <div role="group" aria-label={t("tabs.label")} className="flex">
          {views.map((one) => (
            <button
              key={one}
              aria-pressed={one === view}
              onClick={() => setSearch(one === "shelves" ? {} : { view: one }, { replace: true })}
              className={`min-h-9 border-b-2 px-3 whitespace-nowrap max-md:min-h-11 ${one === view ? "border-sea font-bold" : "border-transparent"}`}
            >
              {t(`tabs.${one}`)}
            </button>
          ))}
        </div>
        {view === "shelves" && (
          <div className="max-md:hidden">
            <EaterTabs />
          </div>
        )}
      </Header>
      <main className="relative min-h-0 flex-1 overflow-auto">
        {view === "shelves" ? <OnShelves /> : view === "cooling" ? <Cooling /> : <Rules />}
      </main>
    </>
  );
}

function OnShelves() {
  const { t } = useWords("keep");
  const shelves = useQuery({
    queryKey: queryKeys.shelves(),
    queryFn: async () => (await getShelves()).data!,
  });
  // What stands above the strips, and on them, is known before they are shown: nothing moves under a hand.
  const [cautions, table] = [useCautions(), useEatersQuery()];
  const missing = lacking(shelves, cautions, table);
  const { data } = shelves;
  if (missing) return <Failed {...missing} />;
  if (!data || !cautions.data || !table.data) return <Loading />;
  if (data.groups.length === 0 && data.waste.boxes === 0)
    return (
      <Empty title={t("empty.title")}>
        <p>{t("empty.text")}</p>
        <p className="flex flex-wrap gap-2">
          <Link to="/pack" className="btn-next">
            {t("empty.toPack")}
          </Link>
          <Link to="/plan?panel=menu" className="btn">
            {t("empty.toPlan")}
          </Link>
        </p>
      </Empty>
    );
  return <Filled view={data} />;
}

function Filled({ view }: { view: ShelvesView }) {
  const { t } = useWords("keep");
  const acts = useKeepActs(view);
  const [chosen, setChosen] = useState(new Set<string>());
  const boxes = byId(view);
  const picked = [...chosen].flatMap((id) => boxes.get(id) ?? []);
  // What is done with some boxes takes its time: others may be chosen meanwhile, and stay.
  const choose = (ids: string[], isChosen: boolean) =>
    setChosen((now) => new Set(isChosen ? [...now, ...ids] : [...now].filter((id) => !ids.includes(id))));
  return (
    <>
      <div className="space-y-6 p-4 max-w-6xl">
        <ByCode boxes={boxes} choose={choose} />
        <Tasks view={view} acts={acts} />
        <Shelves view={view} chosen={chosen} choose={choose} />
        <Waste view={view} />
      </div>
      {picked.length > 0 && (
        <div
          role="region"
          aria-label={t("act.chosen", { count: picked.length })}
          className="sticky bottom-0 z-10 border-t-2 border-rim bg-bench p-3"
        >
          <p className="mb-2 flex items-center gap-3">
            <b className="font-title">{t("act.chosen", { count: picked.length })}</b>
            <button className="link min-h-9 text-sm" onClick={() => setChosen(new Set())}>
              {t("act.none")}
            </button>
          </p>
          <Act
            boxes={picked}
            today={view.today}
            acts={acts}
            done={() =>
              choose(
                picked.map(({ box }) => box.id),
                false,
              )
            }
          />
        </div>
      )}
    </>
  );
}

/** What was thrown away: its weight, its energy, and why. Nobody is blamed. */
function Waste({ view: { waste } }: { view: ShelvesView }) {
  const { t } = useWords("keep");
  return (
    <section aria-labelledby="waste-title" className="text-sm">
      <h2 id="waste-title" className="mb-1 text-base">
        {t("waste.title")}{" "}
        <span className="text-sm font-normal text-soft">
          {t("waste.since", { day: shortDay(waste.since) })}
        </span>
      </h2>
      {waste.boxes === 0 ? (
        <p className="text-soft">{t("waste.none")}</p>
      ) : (
        <p>
          {t("waste.boxes", { count: waste.boxes })} · <b>{grams(Math.round(waste.grams))}</b>{" "}
          <span className="text-xs text-soft">g</span>
          <span className="counted">
            {" "}
            · <Amount measure="energy" figure={waste.energy} />
          </span>{" "}
          ·{" "}
          <span className="text-soft">
            {waste.why.map(({ why, boxes }) => `${why ?? t("waste.noReason")} (${boxes})`).join(", ")}
          </span>
        </p>
      )}
    </section>
  );
}
