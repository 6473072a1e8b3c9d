import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWords } from "../../app/i18n";
import { addEater, aimStart } from "../../api";
import { Header, useEatersQuery } from "../../app/Header";
import { NameIt } from "../../ui/NameIt";
import { Failed, lacking, Loading } from "../../ui/states";
import { EaterSheet } from "./EaterSheet";
import { queryKeys } from "../../app/queryKeys";

export default function AimRoom() {
  const { t } = useWords("aim");
  const queries = useQueryClient();
  const eatersQuery = useEatersQuery();
  const startQuery = useQuery({
    queryKey: queryKeys.aimStart(),
    queryFn: async () => (await aimStart()).data!,
  });
  const [eaters, start] = [eatersQuery.data, startQuery.data];

  const failed = lacking(eatersQuery, startQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!eaters || !start) return <Loading isPage />;

  const entry = (
    <NameIt
      label={t("newName")}
      action={t("add")}
      longest={60}
      isNext={eaters.length === 0}
      onAdd={async (name) => {
        await addEater({ body: { name, aim: { leading: "energy", bands: {}, rule: null } } });
        await queries.invalidateQueries();
      }}
    />
  );

  return (
    <>
      <Header lens={false}>
        <h1 className="text-lg">{t("title")}</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-4">
        {eaters.length === 0 ? (
          <div className="max-w-xl p-2">
            <h2 className="text-xl">{t("empty")}</h2>
            <p className="mt-2 mb-5 text-soft">{t("emptyText")}</p>
            {entry}
          </div>
        ) : (
          <>
            <p className="counted mb-3 text-sm text-soft">{t("lead")}</p>
            <div className="grid grid-cols-[repeat(auto-fit,minmax(min(21rem,100%),1fr))] items-start gap-4">
              {eaters.map((eater) => (
                <EaterSheet key={eater.id} eater={eater} eaters={eaters} start={start} />
              ))}
            </div>
            <div className="mt-5">{entry}</div>
            <p className="mt-5 max-w-3xl text-sm text-soft">{t("caution")}</p>
          </>
        )}
      </main>
    </>
  );
}
