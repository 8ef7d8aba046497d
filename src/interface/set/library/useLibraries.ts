import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { works } from "../../ui/numbers";
import { useSay, useSayFault } from "../../ui/Toasts";

const key = ["libraries"];
const at = (id: number) => ({ params: { path: { id } } });

/** The libraries of the installation: those of the person first, in their order. */
export const useLibraries = () => useQuery({ queryKey: key, queryFn: () => read(api.GET("/api/libraries")) });

/** The libraries of the directory that fit some words; none are asked for before a word is typed. */
export const useDirectory = (find: string) =>
  useQuery({
    queryKey: ["libraries", "directory", find],
    queryFn: ({ signal }) => read(api.GET("/api/libraries/directory", { params: { query: { find } }, signal })),
    enabled: find.trim() !== "",
    placeholderData: keepPreviousData,
  });

/** Something that changes the libraries and gives them back as they are then. */
function useChange<T>(change: (body: T) => Promise<Dto<"LibrariesDto">>) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: change,
    onSuccess: (now) => {
      client.setQueryData(key, now);
      void client.invalidateQueries({ queryKey: ["libraries", "directory"] });
      void client.invalidateQueries({ queryKey: ["review"] });
    },
    onError: fault,
  });
}

/** Uses a library of the directory. */
export const useChoose = () =>
  useChange((identifier: string) => read(api.POST("/api/libraries/choose", { body: { identifier } })));

/** Sets which libraries the person uses, in which order. */
export const useUse = () =>
  useChange((libraries: number[]) => read(api.PUT("/api/libraries/used", { body: { libraries } })));

/** Adds a library by its addresses, with a file of holdings where these have none. */
export const useAddLibrary = () => {
  const bring = useBringHoldings();
  return useChange(async ({ body, file }: { body: Dto<"NewLibraryRequest">; file: File | null }) => {
    const before = new Set((await read(api.GET("/api/libraries"))).libraries.map((l) => l.id));
    const now = await read(api.POST("/api/libraries", { body }));
    const added = now.libraries.find((l) => !before.has(l.id));
    if (file && added) await bring.mutateAsync({ id: added.id, file });
    return now;
  });
};

/** Brings a file of holdings for a library. */
export function useBringHoldings() {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: ({ id, file }: { id: number; file: File }) =>
      read(
        api.POST("/api/libraries/{id}/holdings", {
          ...at(id),
          body: file as never,
          bodySerializer: (body: unknown) => body as never,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Fetches the holdings of a library anew. */
export function useRefreshHoldings() {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (id: number) => read(api.POST("/api/libraries/{id}/refresh", at(id))),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Removes a library for everyone. */
export function useRemoveLibrary() {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (id: number) => read(api.DELETE("/api/libraries/{id}", at(id))),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Says how many works go on after a sign-in. */
function useSignedIn() {
  const client = useQueryClient();
  const say = useSay();
  return ({ goOn }: Dto<"SignedInDto">) => {
    say(
      goOn === 0 ? "You are signed in." : `You are signed in; ${works(goOn)} ${goOn === 1 ? "is" : "are"} tried again.`,
    );
    void client.invalidateQueries({ queryKey: key });
  };
}

/** Signs in to a library with name and password. */
export function useSignInToLibrary() {
  const done = useSignedIn();
  return useMutation({
    mutationFn: ({ id, name, password }: { id: number; name: string; password: string }) =>
      read(api.POST("/api/libraries/{id}/session", { ...at(id), body: { name, password } })),
    onSuccess: done,
  });
}

/** The path of the page that a library's own window leads back to. */
export const returnPath = "/library-return";

/** Opens a library's own sign-in window. */
export const useLibraryWindow = () =>
  useMutation({
    mutationFn: async (id: number) => {
      const back = window.location.origin + returnPath;
      const { address } = await read(api.POST("/api/libraries/{id}/window", { ...at(id), body: { back } }));
      return address;
    },
  });

/** Takes what a library's window gave. */
export function useReturn() {
  const done = useSignedIn();
  return useMutation({
    mutationFn: (body: Dto<"LibraryReturnRequest">) => read(api.POST("/api/libraries/return", { body })),
    onSuccess: done,
  });
}

/** Ends the session at a library. */
export function useSignOutOfLibrary() {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (id: number) => read(api.DELETE("/api/libraries/{id}/session", at(id))),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
}
