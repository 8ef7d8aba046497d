import type { Dto } from "../../api/client";

/** How alike a work and a reference are, where that was measured, and what speaks for or against it. */
export function WhyThis({ work, isSure = false }: { work: Dto<"PastedCandidateDto">; isSure?: boolean }) {
  const alike = isSure ? null : work.likeness;
  return (
    <>
      {alike !== null && <b className="font-semibold text-ink">{alike} % alike</b>}
      {alike !== null && work.why.length > 0 && "; "}
      {work.why.join("; ")}
    </>
  );
}
