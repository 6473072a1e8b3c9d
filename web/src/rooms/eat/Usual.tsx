import { useQuery } from "@tanstack/react-query";
import { getUsual, type EatView, type Measure } from "../../api";
import { useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { Amount } from "../../ui/Figures";
import { useAgain } from "./useAgain";

const most = 8;

/** What this eater has at this hour, one press each; of those the ones that hold what is being typed. */
export function Usual({
  view,
  lens,
  typed,
  onTaken,
}: {
  view: EatView;
  lens: Measure;
  typed: string;
  /** Told when one was entered: what was typed for it is done with. */
  onTaken: () => void;
}) {
  const { t } = useWords("eat");
  const again = useAgain(view);
  const { data } = useQuery({
    queryKey: queryKeys.usual(view.eaterId, view.day.day),
    queryFn: async () => (await getUsual({ path: { eaterId: view.eaterId, day: view.day.day } })).data!,
    staleTime: 60_000,
  });
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const shown = (data ?? [])
    .filter(({ text }) => words.every((word) => text.toLowerCase().includes(word)))
    .slice(0, most);
  // As high while it loads as with one row: nothing moves under the thumb.
  return (
    <ul aria-label={t("usual")} className="mb-2 flex min-h-11 gap-2 overflow-x-auto pb-1">
      {shown.map((one) => (
        <li key={one.itemId} className="shrink-0">
          <button
            type="button"
            className="btn min-h-11 whitespace-nowrap"
            onClick={() => {
              void again([one.itemId], one.text);
              if (typed) onTaken();
            }}
          >
            {one.text} <Amount measure={lens} figure={one.figures[lens]} className="text-sm text-soft" />
          </button>
        </li>
      ))}
      {data && shown.length === 0 && words.length === 0 && (
        <li className="self-center text-sm text-soft">{t("usualNone")}</li>
      )}
    </ul>
  );
}
