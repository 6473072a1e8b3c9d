import { useQuery } from "@tanstack/react-query";
import { listContainers } from "../../../api";
import { queryKeys } from "../../../app/queryKeys";

/** The household's pans, boxes, cups and bags. */
export const useContainers = () =>
  useQuery({ queryKey: queryKeys.containers(), queryFn: async () => (await listContainers()).data! });
