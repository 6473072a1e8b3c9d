import { troubleOf, type Trouble } from "../api";

/** How something that is written on stands with the host. */
export interface Standing<Saved> {
  state: "saved" | "saving" | "unsaved";
  trouble: Trouble | null;
  /** It as the host has stored it just now. */
  saved?: Saved;
}

/** What was written and is not stored yet, with the version it was written on. */
interface Unsent<Sheet> {
  version: number;
  sheet: Sheet;
}

interface Kind<Sheet, Saved extends { version: number }> {
  /** Begins the name under which the browser keeps what is not stored. */
  prefix: string;
  send: (id: string, version: number, sheet: Sheet) => Promise<Saved>;
  /** Whether what the browser kept is still of this shape. */
  isSheet: (kept: Sheet) => boolean;
  /** Whether it can be sent as it is written; what can't waits for other words. Always, where nothing is said. */
  canSend?: (sheet: Sheet) => boolean;
}

const settles = 700;
const tryAgainAfter = 3000;

/** Whether it may be taken later as it is: the host does not answer, or its disk has no room or can't be written now. */
const isForNow = ({ status }: Trouble) => status === undefined || status === 503 || status === 507;

/**
 * One thing's way to the host, for as long as this tab is open, whether its screen is or not. What was written goes out one after another; what can't be stored
 * stays in the browser, and is sent again until the host answers. What the host refuses waits for other words.
 */
export class Desk<Sheet, Saved extends { version: number }> {
  standing: Standing<Saved>;
  private onItsWay: Sheet | null = null;
  private readonly listeners = new Set<() => void>();
  private running = Promise.resolve();
  private timer = 0;

  constructor(
    private readonly desks: Desks<Sheet, Saved>,
    readonly id: string,
    public version: number,
    private waiting: Sheet | null,
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

  /** Keeps what is being typed; it is sent by what comes next. */
  hold(sheet: Sheet) {
    window.clearTimeout(this.timer);
    this.waiting = sheet;
    this.keep();
    this.say({ state: "unsaved", trouble: this.standing.trouble });
  }

  /** Takes what was written; it is sent a moment after the last of it. */
  write(sheet: Sheet) {
    this.hold(sheet);
    this.later(settles);
  }

  /** What was written on an older version is knowingly written over this one. */
  overrule(version: number, sheet: Sheet) {
    this.version = version;
    this.standing = { state: "unsaved", trouble: null };
    this.write(sheet);
    void this.flush();
  }

  /** What is sent next is a change of this version. */
  standOn(version: number) {
    this.version = version;
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
    if (!next || this.desks.kind.canSend?.(next) === false) return;
    [this.onItsWay, this.waiting] = [next, null];
    this.say({ state: "saving", trouble: this.standing.trouble });
    try {
      const saved = await this.desks.kind.send(this.id, this.version, next);
      this.version = saved.version;
      this.onItsWay = null;
      this.keep();
      this.say({ state: this.waiting ? "unsaved" : "saved", trouble: null, saved });
    } catch (thrown) {
      this.onItsWay = null;
      this.waiting ??= next;
      const trouble = troubleOf(thrown, this.desks.silent);
      this.say({ state: "unsaved", trouble });
      if (isForNow(trouble)) this.later(tryAgainAfter);
    }
  }

  private later(milliseconds: number) {
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => void this.flush(), milliseconds);
  }

  private say(standing: Standing<Saved>) {
    this.standing = standing;
    for (const listener of this.listeners) listener();
    if (standing.saved) this.desks.stored();
  }

  private keep() {
    const name = this.desks.kind.prefix + this.id;
    try {
      if (!this.unstored) return localStorage.removeItem(name);
      const unsent: Unsent<Sheet> = { version: this.version, sheet: this.unstored };
      localStorage.setItem(name, JSON.stringify(unsent));
    } catch {
      // A browser that keeps nothing: then it waits in this tab only.
    }
  }
}

/** The desks of one kind of thing. */
export class Desks<Sheet, Saved extends { version: number }> {
  silent = "";
  stored = () => {};
  private readonly open = new Map<string, Desk<Sheet, Saved>>();

  constructor(readonly kind: Kind<Sheet, Saved>) {}

  /** The desk of a thing that was just fetched; what was written on it before and is not stored goes first. */
  of({ id, version }: { id: string; version: number }): Desk<Sheet, Saved> {
    let desk = this.open.get(id);
    if (!desk) {
      const unsent = this.unsentOf(id);
      desk = new Desk(this, id, unsent?.version ?? version, unsent?.sheet ?? null);
      this.open.set(id, desk);
    }
    if (!desk.unstored) desk.version = Math.max(desk.version, version);
    return desk;
  }

  /**
   * Sends what an earlier visit could not store.
   * @param words what is said of a host that does not answer.
   * @param onStored is told whenever something was stored.
   */
  resume(words: string, onStored: () => void) {
    [this.silent, this.stored] = [words, onStored];
    for (const key of Object.keys(localStorage)) {
      if (!key.startsWith(this.kind.prefix)) continue;
      const id = key.slice(this.kind.prefix.length);
      if (this.unsentOf(id)) void this.of({ id, version: 0 }).flush();
    }
  }

  private unsentOf(id: string): Unsent<Sheet> | null {
    try {
      const kept = JSON.parse(localStorage.getItem(this.kind.prefix + id) ?? "null") as Unsent<Sheet> | null;
      return kept && this.kind.isSheet(kept.sheet) ? kept : null;
    } catch {
      return null;
    }
  }
}
