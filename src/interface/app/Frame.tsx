import {
  Database,
  FileText,
  ListFilter,
  ChevronDown,
  CircleUserRound,
  Waypoints,
  ArrowDownToLine,
  BookOpen,
  Rows3,
} from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState, type ReactNode } from "react";
import { NavLink, useNavigate } from "react-router";
import type { Dto } from "../api/client";
import { NotFoundSheet } from "../features/reviews/NotFoundSheet";
import { useReviews } from "../review/useReviews";
import { NewEntrySheet } from "../set/entry/NewEntrySheet";
import { useOpenKept } from "../set/useSet";
import { Logo } from "../ui/Logo";
import { MenuFrame, MenuItem, MenuLine } from "../ui/Menu";
import { count } from "../ui/numbers";
import { Announcement } from "./Announcement";
import { KeysSheet } from "./KeysSheet";
import { Palette } from "./Palette";
import { useKeys } from "../ui/keys";
import { Press } from "../ui/Press";

/** The frame around every stage: the rail at the left, the review's line on top. */
export function Frame({ review, children }: { review: Dto<"ReviewDto"> | null; children: ReactNode }) {
  const navigate = useNavigate();
  const openKept = useOpenKept(review?.id ?? 0);
  const [keys, setKeys] = useState(false);
  const [notFound, setNotFound] = useState(false);
  const [adding, setAdding] = useState(false);
  const go = (stage: string) => () => {
    if (!review) return false;
    void navigate(`/r/${review.id}/${stage}`);
    return true;
  };
  useKeys({
    "g s": go("search"),
    "g t": go("trails"),
    "g m": go("map"),
    "g g": go("gather"),
    "g e": go("read"),
    "g r": go("report"),
    "g d": go("databases"),
    "g k": () => {
      if (!review) return false;
      openKept();
      return true;
    },
    "?": () => {
      setKeys(true);
      return true;
    },
  });
  const base = review ? `/r/${review.id}` : null;
  return (
    <div className="grid h-full grid-cols-[72px_minmax(0,1fr)] max-sm:grid-cols-[minmax(0,1fr)] max-sm:grid-rows-[minmax(0,1fr)_auto]">
      <nav
        aria-label="Stages"
        className="flex flex-col bg-rail py-2.5 text-[#AFC7BD] max-sm:order-last max-sm:flex-row max-sm:overflow-x-auto max-sm:py-0"
      >
        <NavLink
          to={base ? `${base}/search` : "/"}
          aria-label="Zendle: go to Search"
          className="mb-2.5 grid h-9 place-items-center max-sm:hidden"
        >
          <Logo />
        </NavLink>
        {base && (
          <>
            <Stage to={`${base}/search`} icon={<ListFilter size={18} />} word="Search" />
            <Stage to={`${base}/trails`} icon={<Waypoints size={18} />} word="Trails" />
            <Stage to={`${base}/map`} icon={<Rows3 size={18} />} word="Map" />
            <Stage to={`${base}/gather`} icon={<ArrowDownToLine size={18} />} word="Gather" />
            <Stage to={`${base}/read`} icon={<BookOpen size={18} />} word="Read" />
            <Stage to={`${base}/report`} icon={<FileText size={18} />} word="Report" />
          </>
        )}
        <div className="flex-1 max-sm:hidden" />
        <Stage to={base ? `${base}/databases` : "/databases"} icon={<Database size={18} />} word="Databases" />
        <Stage to={base ? `${base}/account` : "/account"} icon={<CircleUserRound size={18} />} word="Account" />
      </nav>
      <div className="flex min-h-0 min-w-0 flex-col">
        <header className="flex h-[46px] shrink-0 items-center gap-3.5 border-b border-line px-[18px] max-sm:px-3">
          <ReviewMenu review={review} />
          {review && (
            <Press
              onClick={openKept}
              className={`rounded-full border border-edge bg-raised px-2.5 py-0.5 text-[12px] whitespace-nowrap text-quiet
                hover:border-ink max-sm:hidden`}
              title="Show the kept works (G then K)"
            >
              <b className="font-semibold text-ink">{count(review.kept)}</b> kept
            </Press>
          )}
          {review && review.notFound > 0 && (
            <Press
              onClick={() => setNotFound(true)}
              className={`rounded-full border border-aside bg-raised px-2.5 py-0.5 text-[12px] whitespace-nowrap
                text-quiet hover:border-ink max-sm:hidden`}
              title="Kept works that are in no database now"
            >
              <b className="font-semibold text-ink">{count(review.notFound)}</b> not found
            </Press>
          )}
          {review && review.withText > 0 && (
            <NavLink
              to={`${base ?? ""}/gather`}
              className={`rounded-full border border-edge bg-raised px-2.5 py-0.5 text-[12px] whitespace-nowrap text-quiet
                hover:border-ink max-sm:hidden`}
              title="Full texts gathered (G then G)"
            >
              <b className="font-semibold text-ink">{count(review.withText)}</b> with text
            </NavLink>
          )}
          <Palette review={review} onKeys={() => setKeys(true)} onEntry={() => setAdding(true)} />
        </header>
        <Announcement />
        <main className="flex min-h-0 flex-1 flex-col">{children}</main>
      </div>
      <KeysSheet open={keys} onOpenChange={setKeys} />
      {review && adding && (
        <NewEntrySheet
          reviewId={review.id}
          close={() => setAdding(false)}
          onShow={(work) => void navigate(`/r/${review.id}/search?work=${work}`)}
        />
      )}
      {review && <NotFoundSheet reviewId={review.id} open={notFound} onOpenChange={setNotFound} />}
    </div>
  );
}

const stageLook =
  "relative flex flex-col items-center gap-[3px] py-2 text-[11.5px] outline-offset-[-3px] hover:text-white max-sm:flex-1";
// The mark of the stage one is in: at its left in the rail, above it in the bar of a phone.
const stageMark = [
  "text-white before:absolute before:inset-y-2 before:left-0 before:w-[3px] before:rounded-r-sm before:bg-[#E3B95A]",
  "max-sm:before:inset-x-2 max-sm:before:inset-y-auto max-sm:before:top-0 max-sm:before:h-[3px] max-sm:before:w-auto",
].join(" ");

function Stage({ to, icon, word }: { to: string; icon: ReactNode; word: string }) {
  return (
    <NavLink to={to} className={({ isActive }) => `${stageLook} ${isActive ? stageMark : ""}`}>
      {icon}
      {word}
    </NavLink>
  );
}

function ReviewMenu({ review }: { review: Dto<"ReviewDto"> | null }) {
  const reviews = useReviews();
  const navigate = useNavigate();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="flex min-w-0 items-center gap-2 rounded-md font-serif text-[17px] font-semibold">
        <span className="truncate">{review?.title ?? "Reviews"}</span>
        <span className="sr-only">, switch reviews</span>
        <ChevronDown size={14} className="shrink-0 text-faint" aria-hidden="true" />
      </DropdownMenu.Trigger>
      <MenuFrame width={280}>
        {reviews.data?.map((r) => (
          <MenuItem key={r.id} onSelect={() => void navigate(`/r/${r.id}/search`)} aside={`${count(r.kept)} kept`}>
            <span className={r.id === review?.id ? "font-semibold" : ""}>{r.title}</span>
          </MenuItem>
        ))}
        <MenuLine />
        <MenuItem onSelect={() => void navigate("/reviews")}>All reviews, or a new one</MenuItem>
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
