import { useQueryClient } from "@tanstack/react-query";
import { ArrowLeft, Pencil, Plus } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import type { ContainerKind, ContainerView } from "../../../api";
import { freshen } from "../../../app/freshen";
import { Header } from "../../../app/Header";
import { addWords, useWords } from "../../../app/i18n";
import { Drawer } from "../../../ui/Drawer";
import { grams, wholeNumber } from "../../../ui/format";
import { Empty, Failed, lacking, Loading } from "../../../ui/states";
import { ContainerForm } from "./ContainerForm";
import { useContainers } from "./useContainers";
import { containers } from "./words";

addWords("containers", containers);

const kinds: ContainerKind[] = ["pan", "box", "cup", "bag"];

/** What the household cooks in and packs into. */
export default function ContainersPage() {
  const { t } = useWords("containers");
  const queries = useQueryClient();
  const all = useContainers();
  const [open, setOpen] = useState<ContainerView | "new" | null>(null);
  const failed = lacking(all);
  if (failed) return <Failed isPage {...failed} />;
  if (!all.data) return <Loading isPage />;
  const add = (
    <button className="btn-next" onClick={() => setOpen("new")}>
      <Plus size={16} aria-hidden /> {t("add")}
    </button>
  );
  return (
    <>
      <Header lens={false} undo={false} actions={all.data.length > 0 && add}>
        <Link to="/pack" aria-label={t("back")} title={t("back")} className="btn border-0 px-1">
          <ArrowLeft size={20} aria-hidden />
        </Link>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        {all.data.length === 0 ? (
          <Empty title={t("empty")}>
            <p>{t("emptyText")}</p>
            {add}
          </Empty>
        ) : (
          <div className="max-w-3xl space-y-6">
            {kinds
              .filter((kind) => all.data.some((one) => one.kind === kind))
              .map((kind) => (
                <section key={kind} aria-labelledby={`kind-${kind}`}>
                  <h2 id={`kind-${kind}`} className="mb-1 text-base">
                    {t(`kinds.${kind}`)}
                  </h2>
                  <ul className="divide-y divide-line border-y border-line">
                    {all.data
                      .filter((one) => one.kind === kind)
                      .map((one) => (
                        <li key={one.id} className="flex min-h-12 flex-wrap items-center gap-x-4 py-2">
                          <Row one={one} />
                          <button
                            className="btn px-2"
                            aria-label={t("edit", { name: one.name })}
                            title={t("edit", { name: one.name })}
                            onClick={() => setOpen(one)}
                          >
                            <Pencil size={16} aria-hidden />
                          </button>
                        </li>
                      ))}
                  </ul>
                </section>
              ))}
          </div>
        )}
      </main>
      {open && (
        <Drawer
          open
          close={() => setOpen(null)}
          title={open === "new" ? t("add") : t("edit", { name: open.name })}
        >
          <ContainerForm
            // Changed elsewhere, the next try is on how it stands then.
            one={open === "new" ? null : (all.data.find(({ id }) => id === open.id) ?? open)}
            done={async () => {
              await freshen(queries, "containers");
              setOpen(null);
            }}
          />
        </Drawer>
      )}
    </>
  );
}

function Row({ one }: { one: ContainerView }) {
  const { t } = useWords("containers");
  const holds = one.compartments.map(({ name, volumeMl }) =>
    [name, t("ml", { ml: wholeNumber(volumeMl) })].filter(Boolean).join(" "),
  );
  if (one.down && one.across) holds.push(t("pieces", { down: one.down, across: one.across }));
  return (
    <span className="min-w-0 flex-1">
      <b className="block">{one.name}</b>
      <span className="text-sm text-soft">
        {[
          holds.join(", ") || (one.kind !== "pan" && t("unmeasured")),
          one.emptyGrams !== null && t("weighs", { grams: grams(one.emptyGrams) }),
          one.count !== null
            ? t("ofMany", { inUse: one.inUse, count: one.count })
            : one.inUse > 0 && t("inUse", { count: one.inUse }),
        ]
          .filter(Boolean)
          .join(" · ")}
      </span>
    </span>
  );
}
