import type { ReactNode } from "react";

/** What another feature adds: requests to other libraries, for the work in view and for all works in vain. */
export interface LoanParts {
  ofWork: (workId: number, mayAsk: boolean) => ReactNode;
  ofMany: (works: readonly number[]) => ReactNode;
}
