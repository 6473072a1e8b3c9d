import { QueryClient, type InvalidateOptions, type InvalidateQueryFilters } from "@tanstack/react-query";

/**
 * What is read of the host. A first reading that is still under way when something changes may have read what stood before it; the library would let it
 * stand as new, so it is dropped here and begun anew.
 */
class Queries extends QueryClient {
  override invalidateQueries(filters?: InvalidateQueryFilters, options?: InvalidateOptions) {
    for (const query of this.getQueryCache().findAll(filters))
      if (query.state.data === undefined && query.state.fetchStatus !== "idle" && query.isActive())
        void query.cancel({ silent: true });
    return super.invalidateQueries(filters, options);
  }
}

export const queries = new Queries({
  // The host is this machine: whether the browser thinks it is on a network says nothing about it.
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: true, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});
