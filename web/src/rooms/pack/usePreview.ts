import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { previewBoxes, type BatchView, type PackRequest } from "../../api";
import { useCurrentEater } from "../../app/Header";
import { queryKeys } from "../../app/queryKeys";
import { useSettled } from "../../ui/useSettled";

/** What packing a batch so would give, soon after the last key; asked only where there is something to ask. */
export function usePreview(batch: BatchView, body: PackRequest, isAsked: boolean) {
  const eater = useCurrentEater();
  const wanted = JSON.stringify(body);
  const asked = useSettled(wanted, 120);
  const query = useQuery({
    queryKey: queryKeys.boxesPreview(batch.id, `${asked}${batch.version}`, eater),
    queryFn: async () =>
      (
        await previewBoxes({
          path: { id: batch.id },
          query: { eaterId: eater ?? undefined },
          body: JSON.parse(asked) as PackRequest,
        })
      ).data!,
    enabled: isAsked,
    placeholderData: keepPreviousData,
    retry: false,
  });
  // What is shown meanwhile is of before: nothing is decided by that.
  return { ...query, isCurrent: asked === wanted && !query.isPlaceholderData };
}
