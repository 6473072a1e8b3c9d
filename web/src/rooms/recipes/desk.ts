import { saveRecipe, seen, troubleOf, type RecipeView, type Trouble } from "../../api";
import { requestOf, type Sheet } from "./sheet";

/** How a recipe stands with the host. */
export interface Standing {
  state: "saved" | "saving" | "unsaved";
  trouble: Trouble | null;
  /** The recipe as the host has stored it just now. */
  saved?: RecipeView;
}

/** What was written and is not stored yet, with the version it was written on. */
interface Unsent {
  version: number;
  sheet: Sheet;
}

const prefix = "tern.recipe.";
const settles = 700;
const tryAgainAfter = 3000;

/**
 * One recipe's way to the host, for as long as this tab is open, whether its bench is or not. What was written goes out one after another; what can't be stored
 * stays in the browser, and is sent again until the host answers. What the host refuses waits for other words.
 */
class Desk {
  onItsWay: Sheet | null = null;
  standing: Standing;
  private readonly listeners = new Set<() => void>();
  private running = Promise.resolve();
  private timer = 0;

  constructor(
    readonly id: string,
    public version: number,
    public waiting: Sheet | null,
  ) {
    this.standing = { state: waiting ? "unsaved" : "saved", trouble: null };
  }

  /** Has a listener told whenever the standing changes. @returns what ends that. */
  readonly listen = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** What was written last and is not known to be stored. */
  get unstored() {
    return this.waiting ?? this.onItsWay;
  }

  write(sheet: Sheet) {
    this.waiting = sheet;
    this.keep();
    this.say({ state: "unsaved", trouble: this.standing.trouble });
    this.later(settles);
  }

  /** What was written on an older version is knowingly written over this one. */
  overrule(version: number, sheet: Sheet) {
    this.version = version;
    this.standing = { state: "unsaved", trouble: null };
    this.write(sheet);
    void this.flush();
  }

  /** Lets go of what was not stored: the host's version counts. */
  drop(version: number) {
    this.version = version;
    window.clearTimeout(this.timer);
    this.waiting = null;
    this.keep();
    this.say({ state: "saved", trouble: null });
  }

  /** Sends what waits, after what is on its way. */
  flush(): Promise<void> {
    window.clearTimeout(this.timer);
    return (this.running = this.running.then(() => this.send()));
  }

  private async send() {
    const next = this.waiting;
    if (!next) return;
    [this.onItsWay, this.waiting] = [next, null];
    this.say({ state: "saving", trouble: this.standing.trouble });
    try {
      const saved = (
        await saveRecipe({ path: { id: this.id }, headers: seen(this.version), body: requestOf(next) })
      ).data!;
      this.version = saved.version;
      this.onItsWay = null;
      this.keep();
      this.say({ state: this.waiting ? "unsaved" : "saved", trouble: null, saved });
    } catch (thrown) {
      this.onItsWay = null;
      this.waiting ??= next;
      const trouble = troubleOf(thrown, silent);
      this.say({ state: "unsaved", trouble });
      if (trouble.status === undefined) this.later(tryAgainAfter);
    }
  }

  private later(milliseconds: number) {
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => void this.flush(), milliseconds);
  }

  private say(standing: Standing) {
    this.standing = standing;
    for (const listener of this.listeners) listener();
    if (standing.saved) stored();
  }

  private keep() {
    try {
      if (!this.unstored) return localStorage.removeItem(prefix + this.id);
      const unsent: Unsent = { version: this.version, sheet: this.unstored };
      localStorage.setItem(prefix + this.id, JSON.stringify(unsent));
    } catch {
      // A browser that keeps nothing: then it waits in this tab only.
    }
  }
}

const desks = new Map<string, Desk>();
let silent = "";
let stored = () => {};

/** The desk of a recipe that was just fetched; what was written on it before and is not stored goes first. */
export function deskOf({ id, version }: Pick<RecipeView, "id" | "version">): Desk {
  let desk = desks.get(id);
  if (!desk) {
    const unsent = unsentOf(id);
    desks.set(id, (desk = new Desk(id, unsent?.version ?? version, unsent?.sheet ?? null)));
  }
  if (!desk.unstored) desk.version = Math.max(desk.version, version);
  return desk;
}

/**
 * Sends what an earlier visit could not store.
 * @param words what is said of a host that does not answer.
 * @param onStored is told whenever something was stored.
 */
export function resumeDesks(words: string, onStored: () => void) {
  [silent, stored] = [words, onStored];
  for (const key of Object.keys(localStorage)) {
    if (!key.startsWith(prefix)) continue;
    const id = key.slice(prefix.length);
    if (unsentOf(id)) void deskOf({ id, version: 0 }).flush();
  }
}

function unsentOf(id: string): Unsent | null {
  try {
    const kept = JSON.parse(localStorage.getItem(prefix + id) ?? "null") as Unsent | null;
    return kept && Array.isArray(kept.sheet.lines) && Array.isArray(kept.sheet.steps) ? kept : null;
  } catch {
    return null;
  }
}
