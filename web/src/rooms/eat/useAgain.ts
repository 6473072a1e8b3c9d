import { eatAgain, type EatView } from "../../api";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { seenDays } from "../../app/seen";

/** Things that were eaten before, eaten again: one change, undone as one. On a day to come they are laid there. */
export function useAgain(view: EatView) {
  const { t } = useWords("eat");
  const { change } = useHistory();
  const where = { eaterId: view.eaterId, day: view.day.day };
  const isAhead = view.day.day > view.today;
  return (itemIds: string[], name: string) =>
    change(
      () => eatAgain({ headers: seenDays(where), body: { ...where, itemIds, eaten: !isAhead } }),
      t(isAhead ? "laidOn" : "added", { name }),
    );
}
