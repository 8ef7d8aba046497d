import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, read } from "../api/client";

/** What the demo waits for while it is being made, in a sentence; null when it is made, or this is no demo. */
export function usePreparing(): string | null {
  const client = useQueryClient();
  const asked = useQuery({
    queryKey: ["preparing"],
    queryFn: () => read(api.GET("/api/preparing")),
    refetchInterval: (q) => (q.state.data?.doing ? 1000 : false),
  });
  const doing = asked.data?.doing ?? null;
  // When it is made, everything on screen is another.
  const was = useRef(doing);
  useEffect(() => {
    if (was.current !== null && doing === null) void client.invalidateQueries();
    was.current = doing;
  }, [client, doing]);
  return doing;
}
