import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWords } from "../../app/i18n";
import {
  listShelfProducts,
  lookUpBarcode,
  sentenceFor,
  troubleOf,
  type BarcodeAnswer,
  type OwnFoodRequest,
} from "../../api";
import { Sentence } from "../../ui/states";
import { queryKeys } from "../../app/queryKeys";

interface BarcodeEntryProps {
  onOpen: (food: { id: string; name: string }) => void;
  /** What that is called, where it is not opened. */
  openWord?: string;
  /** Goes on to the label, filled in as far as the device knows it. */
  onTake: (product: OwnFoodRequest) => void;
}

/** A number typed or scanned, and what it stands for. */
export function BarcodeEntry({ onOpen, openWord, onTake }: BarcodeEntryProps) {
  const { t } = useWords("foods");
  const [typed, setTyped] = useState("");
  const [answer, setAnswer] = useState<BarcodeAnswer>();
  const [problem, setProblem] = useState<string>();
  const { data: shelf } = useQuery({
    queryKey: queryKeys.shelfProducts(),
    queryFn: async () => (await listShelfProducts()).data!,
    staleTime: Infinity,
  });
  const find = async (number: string) => {
    setTyped(number);
    setAnswer(undefined);
    setProblem(undefined);
    try {
      setAnswer((await lookUpBarcode({ path: { gtin: number.trim() || "-" } })).data!);
    } catch (thrown) {
      const trouble = troubleOf(thrown, t("app:silent"));
      setProblem(sentenceFor(trouble, "gtin") ?? trouble.detail ?? "");
    }
  };
  const blank: OwnFoodRequest = {
    name: "",
    group: "seasonings",
    label: { basis: "per100g", servingGrams: null, convention: "withoutFibre" },
    gtin: typed,
  };
  return (
    <>
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void find(typed);
        }}
      >
        <input
          autoFocus
          inputMode="numeric"
          className="field min-w-0 flex-1"
          aria-label={t("code.number")}
          placeholder={t("code.number")}
          value={typed}
          maxLength={30}
          onChange={(event) => setTyped(event.target.value)}
        />
        <button className="btn-next">{t("code.find")}</button>
      </form>
      <Sentence>{problem}</Sentence>
      <div aria-live="polite" className="mt-4 space-y-2">
        {answer?.food && (
          <>
            <p>{t("code.here", { name: answer.food.name })}</p>
            <button className="btn" onClick={() => onOpen(answer.food!)}>
              {openWord ?? t("code.open")}
            </button>
          </>
        )}
        {answer?.product && (
          <>
            <p>
              {t("code.found")} <b>{answer.product.name}</b>
            </p>
            <button className="btn-next" onClick={() => onTake(answer.product!)}>
              {t("code.take")}
            </button>
          </>
        )}
        {answer && !answer.food && !answer.product && (
          <>
            <p>{t("code.unknown", { gtin: answer.gtin })}</p>
            <button className="btn" onClick={() => onTake(blank)}>
              {t("code.write")}
            </button>
          </>
        )}
      </div>
      <h3 className="mt-8 text-sm text-soft">{t("code.device")}</h3>
      <ul className="mt-1">
        {shelf?.map((product) => (
          <li key={product.gtin}>
            <button
              className="flex min-h-9 w-full justify-between gap-3 text-left text-sm hover:underline"
              onClick={() => void find(product.gtin!)}
            >
              <span>{product.name}</span>
              <span className="text-soft">{product.gtin}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
