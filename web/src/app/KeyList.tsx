import { useWords } from "./i18n";
import { useQuiet } from "./quiet";
import { Drawer } from "../ui/Drawer";

export function KeyList({ open, close }: { open: boolean; close: () => void }) {
  const { t } = useWords();
  const quiet = useQuiet();
  const rows = t("keys.rows", { returnObjects: true }) as [string, string][];
  const counted = t("keys.counted", { returnObjects: true }) as [string, string][];
  return (
    <Drawer open={open} close={close} title={t("keys.title")}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-3">
        {[...(quiet ? [] : counted), ...rows].map(([key, meaning]) => (
          <div key={key} className="contents">
            <dt className="font-bold">{key}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </Drawer>
  );
}
