import type { Dto } from "../../api/client";
import { dayOf } from "../../ui/days";

type Status = NonNullable<Dto<"LoanStatus">>;

const statuses: Record<Status, string> = {
  Unsent: "not sent yet",
  Sent: "request sent",
  Refused: "request refused",
  RequestReceived: "request received",
  ExpectToSupply: "expected to be supplied",
  WillSupply: "will be supplied",
  Loaned: "lent to you",
  Overdue: "overdue",
  Recalled: "asked back",
  RetryPossible: "possible on other terms",
  Unfilled: "not supplied",
  CopyCompleted: "copy sent",
  LoanCompleted: "returned",
  CompletedWithoutReturn: "ended without return",
  Cancelled: "cancelled",
};

/** A status of ISO 18626 in words. */
export const statusWord = (status: Status) => statuses[status];

const reasons: Record<string, string> = {
  NotHeld: "not held there",
  NotOnShelf: "not on the shelf",
  OnLoan: "on loan to someone else",
  OnOrder: "on order",
  AtBindery: "at the bindery",
  VolumeNotYetAvailable: "the volume is not available yet",
  NotAvailableForILL: "not available for interlibrary loan",
  NotCurrentAvailableForILL: "not available at the moment",
  NonCirculating: "not lent out",
  PolicyProblem: "against the library’s rules",
  PoorCondition: "in poor condition",
  NotFoundAsCited: "not found as described",
  CostExceedsMaxCost: "costs more than you allowed",
  LoanCondition: "only under conditions",
  MustMeetLoanCondition: "only under conditions",
  ReqDelDateNotPossible: "not by the day you need it",
  ReqDelMethodNotSupp: "cannot be sent that way",
  ReqEditionNotPossible: "not in that edition",
  ReqFormatNotPossible: "not in that format",
  ReqPayMethodNotSupported: "cannot be paid for that way",
  ReqServLevelNotSupp: "not that fast",
  ReqServTypeNotPossible: "not as a copy or loan, as asked",
  Cancelled: "cancelled",
  BadlyFormedMessage: "the message was not understood",
  UnrecognisedDataElement: "the message was not understood",
  UnrecognisedDataValue: "something in the message was not accepted",
};

/** A reason of ISO 18626 in words; one of a desk's own is told as its letters say. */
export const reasonWord = (why: string) =>
  why === "" ? "no reason given" : (reasons[why] ?? why.replace(/([a-z])([A-Z])/g, "$1 $2").toLowerCase());

/** An amount with its currency: 4.50 EUR. */
export const money = (amount: number, currency: string) => `${amount.toFixed(2)} ${currency}`.trim();

type Brief = Dto<"GatherLoanDto">;

/** How the last request for a work stands, in a few words. */
export function loanWord(loan: Brief): string {
  const { status, isOpen, isLent, why, expectedOn, dueOn, delivery, isAtHost } = loan;
  if (delivery === "Waiting") return "fetching the copy";
  if (isLent) return `${statusWord(status)}${dueOn ? ` until ${dayOf(dueOn)}` : ""}`;
  if (status === "CopyCompleted") {
    if (delivery === "Failed") return "the copy sent is not usable";
    if (delivery === "Elsewhere" || isAtHost) return "the copy is at another site";
    return "copy sent to you";
  }
  if (isOpen) return expectedOn ? `expected ${dayOf(expectedOn)}` : statusWord(status);
  return why ? `${statusWord(status)}: ${reasonWord(why)}` : statusWord(status);
}
