import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, setRequestToken, type Dto } from "../api/client";

/** Who is signed in, and the token that changes carry. */
export function useMe() {
  return useQuery({
    queryKey: ["me"],
    queryFn: async () => {
      const me = await read(api.GET("/api/me"));
      setRequestToken(me.requestToken);
      return me;
    },
    staleTime: Infinity,
  });
}

function useIdentityAct<Request>(act: (request: Request) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: async () => {
      // Another person, other sights: nothing of the one before stays in memory.
      client.removeQueries({ predicate: (q) => q.queryKey[0] !== "me" });
      await client.refetchQueries({ queryKey: ["me"] });
    },
  });
}

/** Signs in. */
export const useSignIn = () => useIdentityAct((body: Dto<"SignInRequest">) => read(api.POST("/api/sign-in", { body })));

/** Makes the first account of an installation. */
export const useFirstAccount = () =>
  useIdentityAct((body: Dto<"FirstAccountRequest">) => read(api.POST("/api/first-account", { body })));

/** Signs out. */
export const useSignOut = () => useIdentityAct(() => read(api.POST("/api/sign-out")));

/** Changes the password. */
export const useChangePassword = () =>
  useMutation({ mutationFn: (body: Dto<"PasswordRequest">) => read(api.POST("/api/password", { body })) });

/** Adds an account. */
export const useAddAccount = () =>
  useMutation({ mutationFn: (body: Dto<"NewAccountRequest">) => read(api.POST("/api/accounts", { body })) });

/** A curator has read what is announced. */
export function usePutAway() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => read(api.POST("/api/announcement/put-away")),
    onSuccess: () => client.refetchQueries({ queryKey: ["me"] }),
  });
}
