import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import {
  boxesStillThere,
  eatBoxes,
  letBoxesGo,
  putBoxes,
  troubleOf,
  type BoxPlace,
  type KeptBoxView,
  type KeptGroupView,
  type ShelvesView,
} from "../../api";
import { freshen } from "../../app/freshen";
import { useEaters } from "../../app/Header";
import { useHistory } from "../../app/history";
import { useWords } from "../../app/i18n";
import { useInTurn, useVersions } from "../../app/inTurn";
import { useSay } from "../../app/notices";
import { sawDays, seenDays } from "../../app/seen";
import { daysBack } from "./days";

/** A box with the group it stands in. */
export interface Kept {
  box: KeptBoxView;
  group: KeptGroupView;
}

/** All boxes by their id. */
export const byId = ({ groups }: ShelvesView) =>
  new Map(groups.flatMap((group) => group.boxes.map((box) => [box.id, { box, group }] as const)));

/** The most boxes of one change. */
export const mostAtOnce = 200;

/** What is done with boxes, one or many: each change one after another, each with a way back. */
export function useKeepActs(view: ShelvesView) {
  const { t } = useWords("keep");
  const say = useSay();
  const queries = useQueryClient();
  const { change, did } = useHistory();
  const inTurn = useInTurn("shelves");
  const versions = useVersions();
  const eaters = useEaters();
  useEffect(() => {
    for (const { boxes } of view.groups) for (const { id, version } of boxes) versions.saw(id, version);
  });
  useEffect(() => {
    const laid = view.groups.flatMap(({ boxes }) => boxes.flatMap(dayOf));
    const lately = (eaters ?? []).flatMap(({ id }) =>
      daysBack(view.today).map((day) => ({ eaterId: id, day })),
    );
    sawDays([...laid, ...lately], view.version);
  }, [view, eaters]);

  const at = (boxes: Kept[]) => boxes.map(({ box: { id } }) => ({ id, version: versions.of(id) }));
  const attempt = async (act: () => Promise<void>) => {
    try {
      await act();
      return true;
    } catch (thrown) {
      say(troubleOf(thrown, t("app:silent")).detail ?? "", { trouble: true });
      return false;
    } finally {
      await freshen(queries, "batch");
    }
  };
  const send = async (boxes: Kept[], place: BoxPlace, on: string | null, isBack = false) => {
    const { data } = await inTurn(() => putBoxes({ body: { boxes: at(boxes), place, on, isBack } }));
    for (const { id, version } of data!.boxes) versions.saw(id, version);
  };

  return {
    put: (boxes: Kept[], place: BoxPlace, on: string | null = null) =>
      attempt(async () => {
        await send(boxes, place, on);
        const which = boxes.filter(({ group }) => group.place !== place);
        const [was, ...others] = new Set(which.map(({ group }) => group.place));
        const done = t("act.putDone", { count: which.length, place: t(`shelf.${place}`).toLowerCase() });
        if (was !== undefined && others.length === 0) did(done, () => send(which, was, null, true));
        else say(done);
        if (place === "freezer" && on === null && which.some(({ group }) => group.isOver))
          say(t("act.stays"));
      }),
    stillThere: (boxes: Kept[]) =>
      attempt(async () => {
        const { data } = await inTurn(() => boxesStillThere({ body: { boxes: at(boxes) } }));
        for (const { id, version } of data!.boxes) versions.saw(id, version);
        say(t("act.leaveDone", { count: boxes.length }));
      }),
    letGo: (boxes: Kept[], isThrownAway: boolean, why: string | null) =>
      change(
        () =>
          letBoxesGo({
            body: { boxIds: boxes.map(({ box }) => box.id), isThrownAway, why },
            headers: seenDays(...boxes.flatMap(({ box }) => dayOf(box))),
          }),
        t(isThrownAway ? "act.throwDone" : "act.giveDone", { count: boxes.length }),
      ),
    eat: (boxes: Kept[], eaterId: string, name: string, day: string) =>
      change(
        () =>
          eatBoxes({
            body: { boxIds: boxes.map(({ box }) => box.id), eaterId, day, slot: null },
            headers: seenDays({ eaterId, day }, ...boxes.flatMap(({ box }) => dayOf(box))),
          }),
        t("act.eatDone", { count: boxes.length, name }),
      ),
  };
}

export type KeepActs = ReturnType<typeof useKeepActs>;

const dayOf = ({ eaterId, day }: KeptBoxView) => (eaterId && day ? [{ eaterId, day }] : []);
