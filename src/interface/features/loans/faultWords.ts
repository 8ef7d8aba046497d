import type { Dto } from "../../api/client";

const words: Record<NonNullable<Dto<"LoanFault">>, string> = {
  NoTitle: "Say what you need.",
  NoContainer: "Say which journal or book it is in.",
  NoLocation: "Without volume, issue, pages or DOI it may not be found.",
  NoDate: "Without a year it may not be found.",
  NoPeople: "Without a name it may not be found.",
  BadDate: "Write a year, or a date as 2019-03-18.",
  BadNumber: "The check digit does not fit: one of the digits is wrong.",
  BadPages: "The last page comes before the first.",
  BadDoi: "A DOI begins with 10. and has a slash.",
  WholeAsCopy: "A whole book is lent, not copied.",
  PartAsLoan: "An article or chapter is copied, not lent.",
  TooLong: "At most 1,000 characters.",
};

/** What is wrong with a field of a request, in a sentence. */
export const faultWord = (fault: NonNullable<Dto<"LoanFault">>) => words[fault];
