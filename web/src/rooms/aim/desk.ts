import { changeEater, seen, type Body, type EaterView } from "../../api";
import { Desks } from "../../app/desk";
import { requestOf, type Draft } from "./draft";

/** An eater's sheet as typed, and the body it was worked out from where that is to be kept. */
export interface EaterOnDesk {
  draft: Draft;
  body: Body | null;
}

/** Eaters on their way to the host; a sheet with a field that is no number waits until it is one. */
export const eaterDesks = new Desks<EaterOnDesk, EaterView>({
  prefix: "tern.eater.",
  send: async (id, version, { draft, body }) =>
    (
      await changeEater({
        path: { id },
        headers: seen(version),
        body: { ...requestOf(draft).body, body },
      })
    ).data!,
  isSheet: ({ draft }) => typeof draft.bounds === "object" && typeof draft.ways === "object",
  canSend: ({ draft }) => requestOf(draft).unread.length === 0,
});
