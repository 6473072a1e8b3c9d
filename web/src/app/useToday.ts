import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

const everySoOften = 20_000;

/** At midnight, and when a tablet wakes on another day, all that is shown is fetched anew: today is today by itself. */
export function useToday() {
  const queries = useQueryClient();
  useEffect(() => {
    let day = new Date().toDateString();
    const look = () => {
      const now = new Date().toDateString();
      if (now === day) return;
      day = now;
      void queries.invalidateQueries();
    };
    const timer = window.setInterval(look, everySoOften);
    document.addEventListener("visibilitychange", look);
    return () => {
      window.clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, [queries]);
}
