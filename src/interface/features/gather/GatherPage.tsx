import { useState, type ReactNode } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { useMe } from "../../review/useMe";
import { useKeys } from "../../ui/keys";
import type { Dto } from "../../api/client";
import { BackToList } from "../../ui/BackToList";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { count } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";
import { useArrival } from "../../ui/useArrival";
import { useGoneTo } from "../../ui/useGoneTo";
import { useIsWide } from "../../ui/useIsWide";
import { BroughtFiles } from "./BroughtFiles";
import { GatherPane } from "./GatherPane";
import { GatherRow } from "./GatherRow";
import { HostsSheet } from "./HostsSheet";
import type { LoanParts } from "./loanParts";
import { useBringing } from "./useBringing";
import { documentOf, taken, useGather, useSeek, useSettle, useStopGather } from "../../set/work/useGather";

type Row = Dto<"GatherRowDto">;

const groups: { title: string; hint: string; states: string[] }[] = [
  { title: "Need your decision", hint: "each shows its next step", states: ["ToLookAt", "SignIn", "NotFound"] },
  { title: "In progress", hint: "at most two requests per host", states: ["Waiting"] },
  { title: "By loan", hint: "requested from other libraries", states: ["ByLoan"] },
  { title: "In hand", hint: "", states: ["InHand"] },
  { title: "Not sought yet", hint: "", states: ["NotSought"] },
];

/** Gather: the kept works by how their texts stand, what needs a person on top; the work in view beside it. */
export function GatherPage({ reviewId, foot, loans }: { reviewId: number; foot: ReactNode; loans: LoanParts }) {
  const gather = useGather(reviewId);
  const seek = useSeek(reviewId);
  const stop = useStopGather(reviewId);
  const settle = useSettle(reviewId);
  const bringing = useBringing(reviewId);
  const isCurator = useMe().data?.isCurator ?? false;
  const [hosts, setHosts] = useState(false);
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [over, setOver] = useState(false);
  const [asked] = useState(() => Number(params.get("work") ?? 0));
  const rows = gather.data?.works ?? [];
  const isWide = useIsWide();
  // They come in the order of the groups; the pane opens on the first.
  const first = isWide ? rows[0]?.workId : undefined;
  const selected = Number(params.get("work") ?? 0) || (first ?? null);
  const row = rows.find((r) => r.workId === selected) ?? null;
  const show = (id: number | null) =>
    setParams(
      (old) => {
        const p = new URLSearchParams(old);
        if (id === null) p.delete("work");
        else p.set("work", String(id));
        return p;
      },
      { replace: true },
    );
  useArrival(rows.some((r) => r.workId === asked) ? `li[data-work="${asked}"]` : null);
  const gone = useGoneTo(selected);
  const open = (id: number) => {
    gone.go(id);
    show(id);
  };
  const inView = () => rows.find((r) => r.workId === gone.now());
  const move = (by: number) => {
    const at = rows.findIndex((r) => r.workId === gone.now());
    const next = rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))];
    if (!next) return false;
    open(next.workId);
    document.querySelector(`li[data-work="${next.workId}"]`)?.scrollIntoView({ block: "nearest" });
    return true;
  };
  const answer = (said: NonNullable<Dto<"SettleAnswer">>) => () => {
    const at = inView();
    const text = at?.state === "ToLookAt" ? documentOf(at) : null;
    if (!text) return false;
    settle.mutate({ textId: text.id, answer: said });
    return true;
  };
  useKeys({
    j: () => move(1),
    k: () => move(-1),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    Enter: () => {
      const at = inView();
      const text = at?.state === "InHand" ? documentOf(at) : null;
      if (!text) return false;
      void navigate(`/r/${reviewId}/read/${text.id}`);
      return true;
    },
    v: answer("OtherVersion"),
    y: answer("This"),
    n: answer("Not"),
  });

  if (gather.error)
    return (
      <div className="p-8">
        <Fault error={gather.error} again={() => void gather.refetch()} />
      </div>
    );
  const data = gather.data;
  const running = data?.job?.state === "Running" || data?.job?.state === "Waiting";
  const stopped = !running && (data?.onTheirWay ?? 0) > 0;
  const inVain = rows.filter((r) => r.state === "NotFound" || r.state === "SignIn").length;
  return (
    <div
      className="flex min-h-0 flex-1 flex-col"
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes("Files")) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => {
        if (e.currentTarget === e.target) setOver(false);
      }}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const target = e.target instanceof Element ? e.target.closest("li[data-work]") : null;
        const workId = target ? Number(target.getAttribute("data-work")) : null;
        bringing.bring(e.dataTransfer.files, workId);
      }}
    >
      <header
        className={`flex shrink-0 flex-wrap items-center gap-x-6 gap-y-2 border-b border-line px-[18px] py-2.5
          max-sm:gap-x-4 max-sm:px-3`}
      >
        {data && (
          <>
            <Measure n={data.needYou} word="need your decision" colour="var(--aside)" />
            <Measure n={data.onTheirWay} word="in progress" colour="var(--kept)" />
            {data.byLoan > 0 && <Measure n={data.byLoan} word="by loan" colour="var(--future)" />}
            <Measure n={data.inHand} word="in hand" colour="var(--pine)" />
            <Measure n={data.notSought} word="not yet sought" colour="var(--edge)" />
          </>
        )}
        <div className="ml-auto flex flex-wrap items-center justify-end gap-2.5 max-sm:justify-start">
          {isCurator && <TextButton onClick={() => setHosts(true)}>Hosts</TextButton>}
          <label
            className={`flex h-9 cursor-pointer items-center rounded-md border border-dashed px-3 text-[13px]
            ${over ? "border-pine bg-mist font-semibold" : "border-edge text-quiet hover:border-ink"}`}
          >
            {over ? "drop it to identify it" : "drop files here"}
            <input
              type="file"
              accept={taken}
              multiple
              className="sr-only"
              aria-label="Files to identify"
              onChange={(e) => {
                bringing.bring(e.target.files ?? [], null);
                e.target.value = "";
              }}
            />
          </label>
          {loans.ofMany(
            rows.filter((r) => r.state === "NotFound" && r.loan?.status !== "CopyCompleted").map((r) => r.workId),
          )}
          {inVain > 0 && !running && (
            <Button className="h-9" onClick={() => seek.mutate({ works: null, again: true })}>
              Try {inVain === 1 ? "the failed one" : `the ${count(inVain)} failed`} again
            </Button>
          )}
          {running ? (
            <Button className="h-9" onClick={() => stop.mutate()}>
              Stop
            </Button>
          ) : stopped ? (
            <Button kind="primary" className="h-9" onClick={() => seek.mutate({ works: [], again: false })}>
              Resume {count(data?.onTheirWay ?? 0)}
            </Button>
          ) : (
            (data?.notSought ?? 0) > 0 && (
              <Button
                kind="primary"
                className="h-9"
                disabled={seek.isPending}
                onClick={() => seek.mutate({ works: null, again: false })}
              >
                Gather the {count(data?.notSought ?? 0)}
              </Button>
            )
          )}
        </div>
      </header>
      {running && data.job && <Progress job={data.job} />}
      {hosts && <HostsSheet close={() => setHosts(false)} />}
      <BroughtFiles reviewId={reviewId} bringing={bringing} selected={row} onOpen={open} />
      <div
        className={`grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_400px] max-[1150px]:grid-cols-[minmax(0,1fr)_340px]
          max-sm:grid-cols-[minmax(0,1fr)] ${row ? "max-sm:[&>section]:hidden" : "max-sm:[&>aside]:hidden"}`}
      >
        <section aria-label="Texts" className="min-h-0 scroll-pt-10 overflow-y-auto bg-raised">
          {!data ? (
            <div className="p-6" aria-busy="true">
              <div className="shape h-64 w-full" />
            </div>
          ) : rows.length === 0 ? (
            <div className="p-8">
              <p className="mb-1 font-serif text-[17px]">No work is kept yet.</p>
              <p className="mb-4 text-quiet">
                Keep works in Search or Trails; their full texts are gathered here. Files you already have can be
                dropped on this page and find their works by themselves.
              </p>
              <Button onClick={() => void navigate(`/r/${reviewId}/search`)}>Go to Search</Button>
            </div>
          ) : (
            groups.map((g) => (
              <Group
                key={g.title}
                {...g}
                rows={rows.filter((r) => g.states.includes(r.state))}
                reviewId={reviewId}
                selected={selected}
                open={open}
              />
            ))
          )}
        </section>
        <aside aria-label="Text" className="min-h-0 overflow-y-auto border-l border-line">
          {row && <BackToList onBack={() => show(null)} />}
          <GatherPane key={row?.workId ?? 0} reviewId={reviewId} row={row} bring={bringing.bring} loans={loans} />
        </aside>
      </div>
      {foot}
    </div>
  );
}

function Group({
  title,
  hint,
  rows,
  reviewId,
  selected,
  open,
}: {
  title: string;
  hint: string;
  rows: readonly Row[];
  reviewId: number;
  selected: number | null;
  open: (id: number) => void;
}) {
  if (rows.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="sticky top-0 z-10 flex items-baseline gap-2 border-b border-line bg-paper px-[18px] py-1.5 text-[13px] font-semibold">
        {title} <span className="font-normal text-quiet">{count(rows.length)}</span>
        {hint && <span className="font-normal text-quiet">· {hint}</span>}
      </h2>
      <ul>
        {rows.map((r) => (
          <GatherRow
            key={r.workId}
            row={r}
            reviewId={reviewId}
            selected={r.workId === selected}
            onOpen={() => open(r.workId)}
          />
        ))}
      </ul>
    </section>
  );
}

function Measure({ n, word, colour }: { n: number; word: string; colour: string }) {
  return (
    <p className="border-l-[3px] pl-2.5" style={{ borderColor: colour }}>
      <b className="block text-[20px] leading-none font-bold">{count(n)}</b>
      <span className="text-[12px] whitespace-nowrap text-quiet">{word}</span>
    </p>
  );
}

function Progress({ job }: { job: Dto<"JobDto"> }) {
  const share = job.total ? job.done / job.total : 0;
  return (
    <div
      role="progressbar"
      aria-label="Gathering"
      aria-valuenow={job.done}
      aria-valuemin={0}
      aria-valuemax={job.total ?? 0}
      aria-valuetext={job.message}
      className="flex shrink-0 items-center gap-3 border-b border-line px-[18px] py-1 text-[12px] text-quiet"
    >
      <span className="h-[5px] flex-1 overflow-hidden rounded-full bg-soft">
        <span className="block h-full bg-kept" style={{ width: `${100 * share}%` }} />
      </span>
      {job.message}
    </div>
  );
}
