import { useQuery, useQueryClient } from "@tanstack/react-query";
import { TriangleAlert } from "lucide-react";
import { listCautions, readCaution } from "../api";
import { useWords } from "../app/i18n";
import { all, queryKeys } from "../app/queryKeys";

export const useCautions = () =>
  useQuery({ queryKey: queryKeys.cautions(), queryFn: async () => (await listCautions()).data! });

/** A caution at the step it belongs to, until somebody has read it; it is found again under Keep. */
export function Caution({ code }: { code: string }) {
  const { t } = useWords();
  const queries = useQueryClient();
  const caution = useCautions().data?.find((one) => one.code === code);
  if (!caution || caution.isRead) return null;
  const read = async () => {
    await readCaution({ path: { code }, body: { isRead: true } });
    await queries.invalidateQueries(all("cautions"));
  };
  return (
    <aside
      aria-label={caution.title}
      className="no-print my-3 max-w-2xl border-l-4 border-next py-1 pl-3 text-sm"
    >
      <p className="flex items-center gap-2 font-bold">
        <TriangleAlert size={16} aria-hidden className="shrink-0" /> {caution.title}
      </p>
      <p>{caution.text}</p>
      <p className="text-xs text-soft">
        {caution.source}. {t("caution.local")}
      </p>
      <button className="link min-h-8 text-sm max-md:min-h-11" onClick={() => void read()}>
        {t("caution.read")}
      </button>
    </aside>
  );
}
