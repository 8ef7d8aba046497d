import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { useSay, useSayFault } from "../../ui/Toasts";

const inReview = (reviewId: number) => ({ params: { path: { reviewId } } });
const key = (reviewId: number) => ["review", reviewId, "gather", "loans"];

/** The requests of a review to other libraries, the youngest first. */
export const useLoans = (reviewId: number) =>
  useQuery({
    queryKey: key(reviewId),
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/loans", inReview(reviewId))),
  });

/** Requests for some works as they would be sent, and the desks they can be sent to. */
export const useDrafts = (reviewId: number, works: readonly number[]) =>
  useQuery({
    queryKey: [...key(reviewId), "drafts", works],
    queryFn: () =>
      read(api.POST("/api/reviews/{reviewId}/loans/drafts", { ...inReview(reviewId), body: { works: [...works] } })),
    staleTime: Infinity,
    gcTime: 0,
  });

/** What is wrong with a request as it is written now. */
export const useLoanCheck = (fields: Dto<"LoanFields"> | null) =>
  useQuery({
    queryKey: ["loans", "check", fields],
    queryFn: ({ signal }) => read(api.POST("/api/loans/check", { body: fields as Dto<"LoanFields">, signal })),
    enabled: fields !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });

/** Sends requests. */
export function useAskLoans(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: (requests: Dto<"NewLoanDto">[]) =>
      read(api.POST("/api/reviews/{reviewId}/loans", { ...inReview(reviewId), body: { requests } })),
    onSuccess: ({ asked }) => {
      if (asked > 0)
        say(asked === 1 ? "The loan request is on its way." : `${count(asked)} loan requests are on their way.`);
    },
    onSettled: () => client.invalidateQueries({ queryKey: ["review", reviewId, "gather"] }),
  });
}

/** Does something with a request that was made. */
export function useLoanAct(reviewId: number) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: ({ id, act }: { id: number; act: NonNullable<Dto<"LoanAct">> }) =>
      read(
        api.POST("/api/reviews/{reviewId}/loans/{loanId}", {
          params: { path: { reviewId, loanId: id } },
          body: { act },
        }),
      ),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: ["review", reviewId, "gather"] }),
  });
}

/** The desks of a library. */
export const useDesks = (library: number) =>
  useQuery({
    queryKey: ["libraries", library, "desks"],
    queryFn: () => read(api.GET("/api/libraries/{id}/desks", { params: { path: { id: library } } })),
  });

/** Adds a desk to a library. */
export function useAddDesk(library: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Dto<"NewLoanDeskRequest">) =>
      read(api.POST("/api/libraries/{id}/desks", { params: { path: { id: library } }, body })),
    onSettled: () => client.invalidateQueries({ queryKey: ["libraries", library, "desks"] }),
  });
}

/** Removes a desk for everyone. */
export function useRemoveDesk(library: number) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (deskId: number) =>
      read(api.DELETE("/api/libraries/{id}/desks/{deskId}", { params: { path: { id: library, deskId } } })),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: ["libraries", library, "desks"] }),
  });
}

/** Where a desk is to write to, for whoever sets that up at the desk. */
export const useDeskBack = (library: number, deskId: number | null) =>
  useQuery({
    queryKey: ["libraries", library, "desks", deskId, "back"],
    queryFn: () =>
      read(
        api.GET("/api/libraries/{id}/desks/{deskId}/back", {
          params: { path: { id: library, deskId: deskId ?? 0 } },
        }),
      ),
    enabled: deskId !== null,
    staleTime: Infinity,
  });
