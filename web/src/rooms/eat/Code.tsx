import { useState } from "react";
import type { OwnFoodRequest } from "../../api";
import { useWords } from "../../app/i18n";
import { Drawer } from "../../ui/Drawer";
import { BarcodeEntry } from "../foods/BarcodeEntry";
import { LabelForm } from "../foods/LabelForm";

/** A packet by the number under its barcode; one that is not known here gets its label written down first. */
export function Code({
  onFood,
  close,
}: {
  onFood: (food: { id: string; name: string }) => void;
  close: () => void;
}) {
  const { t } = useWords("eat");
  const [product, setProduct] = useState<OwnFoodRequest | null>(null);
  return (
    <Drawer open grows close={close} title={t("code.title")}>
      {product ? (
        <LabelForm start={product} onSaved={onFood} />
      ) : (
        <BarcodeEntry onOpen={onFood} openWord={t("code.eat")} onTake={setProduct} />
      )}
    </Drawer>
  );
}
