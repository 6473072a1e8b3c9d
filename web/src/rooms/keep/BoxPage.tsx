import { useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { Link, useParams } from "react-router";
import { findBox, getShelves, troubleOf, type BoxPageView, type ShelvesView } from "../../api";
import { Header, useEatersQuery } from "../../app/Header";
import { addWords, useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { Caution, useCautions } from "../../ui/Caution";
import { grams, shortDay } from "../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { Mark } from "../../ui/Tape";
import { Act } from "./Act";
import { KeptTape } from "./KeptTape";
import { Poorly } from "./Tasks";
import { byId, useKeepActs } from "./useKeepActs";
import { compartmentWords } from "../pack/compartmentWords";
import { pack } from "../pack/words";
import { keep } from "./words";

addWords("keep", keep);
addWords("pack", pack);

/** The page of one box, where its label's code leads: what it is, until when, how to heat it, and what can be done with it. */
export default function BoxPage() {
  const { code } = useParams();
  const { t } = useWords("keep");
  const box = useQuery({
    queryKey: queryKeys.box(code!),
    queryFn: async () => (await findBox({ path: { code: code! } })).data!,
    retry: false,
  });
  const shelves = useQuery({
    queryKey: queryKeys.shelves(),
    queryFn: async () => (await getShelves()).data!,
  });
  const [cautions, table] = [useCautions(), useEatersQuery()];
  const trouble = box.error ? troubleOf(box.error, t("app:silent")) : null;
  if (trouble?.status)
    return (
      <Empty isPage title={t("box.notFound")}>
        <p>{trouble.detail}</p>
        <Link to="/keep" className="btn-next">
          {t("box.shelf")}
        </Link>
      </Empty>
    );
  const missing = lacking(box, shelves, cautions, table);
  if (missing) return <Failed isPage {...missing} />;
  if (!box.data || !shelves.data || !cautions.data || !table.data) return <Loading isPage />;
  return <OneBox box={box.data} view={shelves.data} />;
}

function OneBox({ box, view }: { box: BoxPageView; view: ShelvesView }) {
  const { t } = useWords("keep");
  const acts = useKeepActs(view);
  const kept = byId(view).get(box.id);
  const contains = box.allergens.map((name) => t(`foods:allergens.${name}`).toLowerCase()).join(", ");
  const said = box.knowsAllergens
    ? contains && t("box.contains", { allergens: contains })
    : contains
      ? t("box.containsMore", { allergens: contains })
      : t("box.unknown");
  return (
    <>
      <Header lens={kept !== undefined}>
        <Link to="/keep" aria-label={t("box.shelf")} title={t("box.shelf")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <Mark letters={box.letters} tint={box.tint} className="h-8 w-10 text-sm" />
        <h1 className="text-lg">{box.name}</h1>
        <span className="text-sm text-soft">
          {t("box.which", { number: box.number, count: box.boxes })} · {t("box.code", { code: box.code })}
        </span>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        <div className="max-w-2xl space-y-5">
          {kept ? (
            <KeptTape boxes={[kept]} today={view.today} />
          ) : (
            <p className="font-title text-xl font-bold">{t(`box.states.${box.state}`)}</p>
          )}
          {said && <p className="font-semibold">{said}</p>}
          {(box.putIn.length > 0 || box.container) && (
            <section aria-label={t("box.within")}>
              {box.container && <p>{t("box.container", { name: box.container })}</p>}
              <ul>
                {box.putIn.map(({ name, grams: weight, compartment }) => (
                  <li key={name + compartment} className="grid grid-cols-[6.5rem_1fr]">
                    <b>{grams(Math.round(weight))} g</b>
                    <span>
                      {name}
                      {compartment && `, ${compartmentWords(t, compartment)}`}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {kept && box.notes.heating && <Note title={t("box.heating")} text={box.notes.heating} />}
          {kept && box.notes.atEating && <Note title={t("box.atEating")} text={box.notes.atEating} />}
          {kept && <Caution code={kept.group.isOver ? "past-its-day" : "reheat"} />}
          {kept && (
            <section aria-labelledby="box-do">
              <h2 id="box-do" className="mb-2 text-base">
                {t("box.do")}
              </h2>
              <Act boxes={[kept]} today={view.today} acts={acts} isOver={kept.group.isOver} />
              {kept.group.place !== "freezer" && <Poorly kept={kept} />}
            </section>
          )}
          <section aria-labelledby="box-happened" className="text-sm">
            <h2 id="box-happened" className="mb-1 text-base">
              {t("box.happened")}
            </h2>
            <ul>
              {box.happened.map(({ on, kind, place, why }, i) => {
                const what = t(`box.events.${kind}`, { place: t(`shelf.${place}`).toLowerCase() });
                return (
                  <li key={i} className="grid grid-cols-[6.5rem_1fr]">
                    <span className="text-soft">{shortDay(on)}</span>
                    <span>{why ? t("box.why", { what, why }) : what}</span>
                  </li>
                );
              })}
              <li className="grid grid-cols-[6.5rem_1fr]">
                <span className="text-soft">{shortDay(box.cookedOn)}</span>
                <span>{t("box.cooked", { grams: grams(Math.round(box.packedGrams * 10) / 10) })}</span>
              </li>
            </ul>
            <Link to={`/pack/${box.batchId}`} className="link inline-block min-h-8">
              {t("box.batch")}
            </Link>
          </section>
        </div>
      </main>
    </>
  );
}

function Note({ title, text }: { title: string; text: string }) {
  return (
    <section>
      <h2 className="text-sm text-soft">{title}</h2>
      <p className="text-lg">{text}</p>
    </section>
  );
}
