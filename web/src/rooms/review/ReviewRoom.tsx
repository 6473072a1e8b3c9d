import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { getBody } from "../../api";
import { EaterTabs, Header, useCurrentEater, useEatersQuery } from "../../app/Header";
import { addWords, useWords } from "../../app/i18n";
import { queryKeys } from "../../app/queryKeys";
import { Empty, Failed, lacking, Loading } from "../../ui/states";
import { BodyTrend } from "./BodyTrend";
import { review } from "./words";

addWords("review", review);

/** What the weeks teach. */
export default function ReviewRoom() {
  const { t } = useWords("review");
  const eatersQuery = useEatersQuery();
  const eater = useCurrentEater();
  const bodyQuery = useQuery({
    queryKey: queryKeys.body(eater),
    queryFn: async () => (await getBody({ path: { eaterId: eater! } })).data!,
    enabled: eater !== null,
  });
  if (eatersQuery.data?.length === 0)
    return (
      <Empty isPage title={t("empty")}>
        <p>{t("emptyText")}</p>
        <Link to="/aim" className="btn-next">
          {t("toAim")}
        </Link>
      </Empty>
    );
  const failed = lacking(eatersQuery, bodyQuery);
  if (failed) return <Failed isPage {...failed} />;
  if (!bodyQuery.data) return <Loading isPage />;
  return (
    <>
      <Header>
        <h1 className="font-title text-lg font-bold">{t("title")}</h1>
        <EaterTabs />
      </Header>
      <main className="min-h-0 flex-1 overflow-auto px-4 py-4">
        <div className="mx-auto max-w-3xl">
          <BodyTrend key={bodyQuery.data.eaterId} body={bodyQuery.data} />
        </div>
      </main>
    </>
  );
}
