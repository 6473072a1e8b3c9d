import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useWords } from "../app/i18n";
import { openDemo, troubleOf } from "../api";
import { Header, useEatersQuery, useOverviewQuery } from "../app/Header";
import { Failed, lacking, Loading, Sentence } from "../ui/states";
import { FirstDish, type Dish } from "./FirstDish";
import { OnTomorrow, type Laid } from "./OnTomorrow";
import { WhoEats } from "./WhoEats";

const steps = ["who", "dish", "tomorrow"] as const;
type Step = (typeof steps)[number];
const notLaid: Laid = { batchId: null, on: [] };

/** The first five minutes: who eats, a first dish, a portion of it on tomorrow; each step can be skipped, and the demo is next door. */
export default function Beginning() {
  const { t } = useWords("beginning");
  const eatersQuery = useEatersQuery();
  const overviewQuery = useOverviewQuery();
  const [step, setStep] = useState<Step>("who");
  const [isAdding, setAdding] = useState(false);
  const [dish, setDish] = useState<Dish | null>(null);
  const [laid, setLaid] = useState(notLaid);
  const failed = lacking(eatersQuery, overviewQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!eatersQuery.data || !overviewQuery.data) return <Loading isPage />;
  const eaters = eatersQuery.data;
  const at = steps.indexOf(step);
  return (
    <>
      <Header lens={false}>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4 md:p-8">
        <div className="max-w-2xl">
          <p className="text-lg">{t("lead")}</p>
          {!overviewQuery.data.isDemo && <Demo />}
          <ol className="mt-6 mb-4 flex gap-2" aria-label={t("step", { step: at + 1 })}>
            {steps.map((name, i) => (
              <li key={name} className="flex-1">
                <button
                  className={`w-full border-t-4 pt-1 text-left font-title font-bold ${i <= at ? "border-sea" : "border-line text-soft"}`}
                  aria-current={name === step ? "step" : undefined}
                  onClick={() => setStep(name)}
                >
                  {i + 1} {t(`steps.${name}`)}
                </button>
              </li>
            ))}
          </ol>
          {step === "who" && <WhoEats eaters={eaters} isAdding={isAdding} onAdding={setAdding} />}
          {step === "dish" && (
            <FirstDish
              dish={dish}
              onTaken={(taken) => {
                setDish(taken);
                setLaid(notLaid);
                setStep("tomorrow");
              }}
            />
          )}
          {step === "tomorrow" && (
            <OnTomorrow
              eaters={eaters}
              dish={dish}
              today={overviewQuery.data.today}
              laid={laid}
              onLaid={setLaid}
            />
          )}
          <p className="mt-6 flex items-center gap-4">
            {step === "tomorrow" ? (
              (!dish || eaters.length === 0) && (
                <Link to="/plan" className="link">
                  {t("tomorrow.empty")}
                </Link>
              )
            ) : (
              <button
                className={step === "who" && eaters.length > 0 && !isAdding ? "btn-next" : "link min-h-11"}
                onClick={() => setStep(steps[at + 1]!)}
              >
                {t(step === "who" && eaters.length > 0 ? "next" : "skip")}
              </button>
            )}
          </p>
        </div>
      </main>
    </>
  );
}

/** A look into the demo household, in a window of its own. */
function Demo() {
  const { t } = useWords("beginning");
  const demo = useMutation({
    mutationFn: async () => {
      // Opened by the press itself: a browser lets no page open one later.
      const page = window.open("about:blank", "lively-tern-demo");
      try {
        const { url } = (await openDemo()).data!;
        if (page) page.location.href = url;
        else window.location.href = url;
      } catch (thrown) {
        page?.close();
        throw thrown;
      }
    },
  });
  return (
    <p className="mt-3 text-sm">
      <button className="btn mr-3" disabled={demo.isPending} onClick={() => demo.mutate()}>
        {t(demo.isPending ? "demoOpens" : "demo")}
      </button>
      <span className="text-soft">{t("demoText")}</span>
      {demo.error && <Sentence>{troubleOf(demo.error, t("app:silent")).detail}</Sentence>}
    </p>
  );
}
