import { useState } from "react";
import { useLoans } from "../../set/loan/useLoans";
import { Button } from "../../ui/Button";
import { count } from "../../ui/numbers";
import { LoanSheet } from "./LoanSheet";

const most = 100;

/** Asks other libraries for all works that nothing else gave. */
export function AskForLoans({ reviewId, works }: { reviewId: number; works: readonly number[] }) {
  const hasDesks = useLoans(reviewId).data?.hasDesks ?? false;
  const [asking, setAsking] = useState<readonly number[] | null>(null);
  if (!hasDesks || works.length === 0) return null;
  return (
    <>
      <Button className="h-9" onClick={() => setAsking(works.slice(0, most))}>
        Ask other libraries for {works.length === 1 ? "it" : count(Math.min(most, works.length))}
      </Button>
      {asking && <LoanSheet reviewId={reviewId} works={asking} close={() => setAsking(null)} />}
    </>
  );
}
