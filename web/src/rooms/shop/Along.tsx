import { Link } from "react-router";
import type { ShopListView } from "../../api";
import { useWords } from "../../app/i18n";
import { shortDay } from "../../ui/format";
import { price } from "./price";

/** Beside the list: copies to take along, the dishes it is for with what a box costs, and the aisles. */
export function Along({
  list,
  until,
  showAisles,
}: {
  list: ShopListView;
  until: string | null;
  showAisles: () => void;
}) {
  const { t } = useWords("shop");
  const file = (ending: string) => `/api/shop/list.${ending}${until ? `?until=${until}` : ""}`;
  return (
    <aside className="no-print space-y-5 text-sm">
      <section aria-labelledby="along-title">
        <h2 id="along-title" className="mb-1 text-base">
          {t("along.title")}
        </h2>
        <ul className="space-y-1">
          <li>
            <a className="link inline-block max-md:py-2" href={file("html")} download>
              {t("along.page")}
            </a>
            <p className="text-xs text-soft">{t("along.pageText")}</p>
          </li>
          <li className="flex gap-x-4">
            <a className="link max-md:py-2" href={file("md")} download>
              {t("along.markdown")}
            </a>
            <a className="link max-md:py-2" href={file("csv")} download>
              {t("along.csv")}
            </a>
          </li>
        </ul>
      </section>
      {list.batches.length > 0 && (
        <section aria-labelledby="dishes-title">
          <h2 id="dishes-title" className="mb-1 text-base">
            {t("dishes.title")}
          </h2>
          <ul className="divide-y divide-line border-y border-line">
            {list.batches.map((batch) => (
              <li key={batch.id} className="py-1">
                <Link className="font-semibold hover:underline" to={`/recipes/${batch.recipeId}`}>
                  {batch.name}
                </Link>
                <span className="block text-xs text-soft">
                  {shortDay(batch.day)} ·{" "}
                  {batch.cost > 0
                    ? t(batch.unpriced > 0 ? "dishes.portionAtLeast" : "dishes.portion", {
                        currency: list.currency,
                        cost: price(batch.perPortion),
                      })
                    : t("dishes.noPrice")}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <button className="btn" onClick={showAisles}>
        {t("aisles.open")}
      </button>
    </aside>
  );
}
