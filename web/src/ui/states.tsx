import { useWords } from "../app/i18n";
import type { ReactNode } from "react";
import { troubleOf } from "../api";

/** Where a state is the page itself, it brings the page's landmark and title. */
const framed = <T extends "p" | "h2">(isPage: boolean, title: T) =>
  isPage ? (["main", "h1"] as const) : (["div", title] as const);
const said = "font-sans text-base font-normal";

/** A screen that is on its way: the room it will take, and a word for those who listen. */
export function Loading({ isPage = false }: { isPage?: boolean }) {
  const { t } = useWords();
  const [Frame, Title] = framed(isPage, "p");
  return (
    <Frame>
      <div role="status" className="p-6 text-soft">
        <Title className={said}>{t("loading")}</Title>
      </div>
    </Frame>
  );
}

/** A screen that could not be fetched: what is wrong, and the way to mend it. */
export function Failed({
  error,
  retry,
  isPage = false,
}: {
  error: unknown;
  retry: () => void;
  isPage?: boolean;
}) {
  const { t } = useWords();
  const [Frame, Title] = framed(isPage, "p");
  return (
    <Frame>
      <div role="alert" className="m-6 max-w-xl border-l-4 border-brick pl-4">
        <Title className={said}>{troubleOf(error, t("silent")).detail}</Title>
        <button className="btn mt-3" onClick={retry}>
          {t("retry")}
        </button>
      </div>
    </Frame>
  );
}

interface Fetched {
  data: unknown;
  error: unknown;
  refetch: () => unknown;
}

/** What a screen needs and did not get: what is wrong, and asking again for all of it. Null while everything came or is on its way. */
export function lacking(...needed: Fetched[]) {
  const failed = needed.filter(({ data, error }) => error && !data);
  return failed[0] ? { error: failed[0].error, retry: () => failed.forEach((one) => one.refetch()) } : null;
}

/** An empty screen: what will be here, and the one action that fills it. As a page of its own it brings its landmark and title. */
export function Empty({
  title,
  isPage = false,
  children,
}: {
  title: string;
  isPage?: boolean;
  children: ReactNode;
}) {
  const [Frame, Title] = framed(isPage, "h2");
  return (
    <Frame className="max-w-xl p-6">
      <Title className="text-lg">{title}</Title>
      <div className="mt-2 space-y-4 text-soft">{children}</div>
    </Frame>
  );
}

/** A sentence at its field: a word and a hatch, never colour alone. */
export function Sentence({ id, children }: { id?: string; children: ReactNode }) {
  if (!children) return null;
  return (
    <p id={id} role="alert" className="mt-1 flex gap-2 text-sm text-brick">
      <span aria-hidden className="hatched w-1.5 shrink-0 rounded-sm" />
      <span>{children}</span>
    </p>
  );
}
