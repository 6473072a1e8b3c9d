import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import { useState } from "react";
import { getAisles, seen, setAisles, troubleOf, type Aisles, type Trouble } from "../../api";
import { freshen } from "../../app/freshen";
import { useWords } from "../../app/i18n";
import { useSay } from "../../app/notices";
import { queryKeys } from "../../app/queryKeys";
import { Drawer } from "../../ui/Drawer";
import { Failed, Loading, Sentence } from "../../ui/states";

/** The aisles in the order in which this household walks them. */
export function AislesDrawer({ close }: { close: () => void }) {
  const { t } = useWords("shop");
  const { data, error, refetch } = useQuery({
    queryKey: queryKeys.aisles(),
    queryFn: async () => (await getAisles()).data!,
  });
  return (
    <Drawer open grows close={close} title={t("aisles.title")}>
      {error && !data ? (
        <Failed error={error} retry={() => void refetch()} />
      ) : data ? (
        <Form key={data.version} aisles={data.aisles} version={data.version} close={close} />
      ) : (
        <Loading />
      )}
    </Drawer>
  );
}

function Form({ aisles, version, close }: { aisles: Aisles; version: number; close: () => void }) {
  const { t } = useWords("shop");
  const say = useSay();
  const queries = useQueryClient();
  const [order, setOrder] = useState(aisles.inOrder);
  const [currency, setCurrency] = useState(aisles.currency);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const move = (at: number, by: number) => {
    const next = [...order];
    const [moved] = next.splice(at, 1);
    next.splice(at + by, 0, moved!);
    setOrder(next);
  };
  const save = async () => {
    try {
      await setAisles({ headers: seen(version), body: { inOrder: order, currency: currency.trim() } });
      say(t("aisles.saved"));
      close();
    } catch (thrown) {
      setTrouble(troubleOf(thrown, t("app:silent")));
    } finally {
      await freshen(queries, "shop");
    }
  };
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <ul className="space-y-1">
        {order.map((aisle, at) => (
          <li key={aisle.id} className="flex items-center gap-1">
            <input
              className="field min-w-0 flex-1"
              aria-label={t("aisles.name", { count: at + 1 })}
              maxLength={40}
              value={aisle.name}
              onChange={(event) =>
                setOrder(order.map((one, i) => (i === at ? { ...one, name: event.target.value } : one)))
              }
            />
            <button
              type="button"
              className="btn px-2"
              aria-label={t("aisles.up", { name: aisle.name })}
              disabled={at === 0}
              onClick={() => move(at, -1)}
            >
              <ArrowUp size={16} aria-hidden />
            </button>
            <button
              type="button"
              className="btn px-2"
              aria-label={t("aisles.down", { name: aisle.name })}
              disabled={at === order.length - 1}
              onClick={() => move(at, 1)}
            >
              <ArrowDown size={16} aria-hidden />
            </button>
            <button
              type="button"
              className="min-h-9 px-1 max-md:min-h-11"
              aria-label={t("aisles.drop", { name: aisle.name })}
              disabled={order.length === 1}
              onClick={() => setOrder(order.filter((_, i) => i !== at))}
            >
              <X size={16} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="chip"
        onClick={() => setOrder([...order, { id: crypto.randomUUID(), name: t("aisles.fresh") }])}
      >
        <Plus size={14} aria-hidden className="mr-1 inline" />
        {t("aisles.add")}
      </button>
      <label className="flex items-center gap-2 text-sm">
        {t("aisles.currency")}
        <input
          className="field w-20"
          placeholder={t("aisles.currencyHint")}
          maxLength={4}
          value={currency}
          onChange={(event) => setCurrency(event.target.value)}
        />
      </label>
      {trouble && <Sentence>{trouble.errors?.[0]?.sentence ?? trouble.detail}</Sentence>}
      <button className="btn-next w-full">{t("aisles.save")}</button>
    </form>
  );
}
