import { useQuery } from "@tanstack/react-query";
import { api, read } from "../../api/client";

/** The hosts of texts as they have been met with; only a curator may ask. */
export const useHosts = (enabled: boolean) =>
  useQuery({ queryKey: ["hosts"], queryFn: () => read(api.GET("/api/hosts")), enabled });
