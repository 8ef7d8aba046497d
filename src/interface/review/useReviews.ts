import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../api/client";

/** All reviews of the person. */
export const useReviews = () => useQuery({ queryKey: ["reviews"], queryFn: () => read(api.GET("/api/reviews")) });

/** One review. */
export const useReview = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "head"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}", { params: { path: { reviewId } } })),
  });

/** Makes a review. */
export function useNewReview() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Dto<"NewReviewRequest">) => read(api.POST("/api/reviews", { body })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["reviews"] }),
  });
}

/** Changes title, question or target band. */
export function useChangeReview(reviewId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Dto<"ReviewChangeRequest">) =>
      read(api.PATCH("/api/reviews/{reviewId}", { params: { path: { reviewId } }, body })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["review", reviewId, "head"] });
      await client.invalidateQueries({ queryKey: ["reviews"] });
    },
  });
}

/** Members of a review. */
export const useMembers = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "members"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/members", { params: { path: { reviewId } } })),
  });

/** Gives an account a part in the review, or takes it away ("none"). */
export function useMemberActs(reviewId: number) {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: ["review", reviewId, "members"] });
  return {
    put: useMutation({
      mutationFn: (body: Dto<"MemberRequest">) =>
        read(api.PUT("/api/reviews/{reviewId}/members", { params: { path: { reviewId } }, body })),
      onSuccess,
    }),
    remove: useMutation({
      mutationFn: (name: string) =>
        read(api.DELETE("/api/reviews/{reviewId}/members/{name}", { params: { path: { reviewId, name } } })),
      onSuccess,
    }),
  };
}

/** Kept works that are in no database now. */
export const useNotFound = (reviewId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "not-found"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/not-found", { params: { path: { reviewId } } })),
    enabled,
  });
