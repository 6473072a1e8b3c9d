import { useMutation } from "@tanstack/react-query";
import { useCallback, useRef } from "react";

/** Runs what quick hands ask for one after another; each is put together when its turn comes. */
export function useInTurn(scope: string): <T>(act: () => Promise<T>) => Promise<T> {
  const { mutateAsync } = useMutation({
    scope: { id: scope },
    mutationFn: (act: () => Promise<unknown>) => act(),
  });
  return useCallback(
    <T>(act: () => Promise<T>) => mutateAsync(act as () => Promise<unknown>) as Promise<T>,
    [mutateAsync],
  );
}

/** The newest version known of each thing: as it was read, or as an answer left it. */
export function useVersions() {
  const known = useRef(new Map<string, number>());
  return {
    saw: (id: string, version: number) =>
      void known.current.set(id, Math.max(known.current.get(id) ?? 0, version)),
    of: (id: string) => known.current.get(id) ?? 0,
  };
}
