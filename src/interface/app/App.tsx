import { lazy, Suspense } from "react";
import { Navigate, Route, Routes, useParams } from "react-router";
import { DatabasesPage } from "../features/databases/DatabasesPage";
import { AccountPage } from "../features/identity/AccountPage";
import { LibraryFoot } from "../features/libraries/LibraryFoot";
import { AskForLoans } from "../features/loans/AskForLoans";
import { LoanPart } from "../features/loans/LoanPart";
import { ReturnPage } from "../features/libraries/ReturnPage";
import { SignIn } from "../features/identity/SignIn";
import { useMe } from "../review/useMe";
import { ReportPage } from "../features/report/ReportPage";
import { ReviewsPage } from "../features/reviews/ReviewsPage";
import { useReview, useReviews } from "../review/useReviews";
import { SearchPage } from "../features/search/SearchPage";
import { MapPage } from "../features/maps/MapPage";
import { GatherPage } from "../features/gather/GatherPage";
import { TextsPage } from "../features/read/TextsPage";
import { TrailsPage } from "../features/trails/TrailsPage";
import { Fault } from "../ui/Fault";
import { AboutPage } from "./AboutPage";
import { Frame } from "./Frame";
import { useEvents } from "./events";

/** Everything: the sign-in page for strangers, the frame with its stages for members. */
export function App() {
  const me = useMe();
  if (me.isPending) return null;
  if (me.error)
    return (
      <main className="p-12">
        <Fault error={me.error} again={() => void me.refetch()} />
      </main>
    );
  return me.data.signedIn ? <SignedIn /> : <SignIn me={me.data} />;
}

function SignedIn() {
  useEvents();
  return (
    <Routes>
      <Route path="/" element={<Home />} />
      <Route path="/reviews" element={<Outside page={<ReviewsPage />} />} />
      <Route path="/databases" element={<Outside page={<DatabasesPage />} />} />
      <Route path="/library-return" element={<ReturnPage />} />
      <Route path="/about" element={<Outside page={<AboutPage />} />} />
      <Route path="/account" element={<Outside page={<AccountPage />} />} />
      <Route path="/r/:reviewId/search" element={<InReview page={(id) => <SearchPage key={id} reviewId={id} />} />} />
      <Route path="/r/:reviewId/trails" element={<InReview page={(id) => <TrailsPage key={id} reviewId={id} />} />} />
      <Route path="/r/:reviewId/map" element={<InReview page={(id) => <MapPage key={id} reviewId={id} />} />} />
      <Route path="/r/:reviewId/gather" element={<InReview page={(id) => <Gathering key={id} reviewId={id} />} />} />
      <Route path="/r/:reviewId/read" element={<InReview page={(id) => <TextsPage key={id} reviewId={id} />} />} />
      <Route path="/r/:reviewId/read/:textId" element={<InReview page={(id) => <Reading reviewId={id} />} />} />
      <Route path="/r/:reviewId/report" element={<InReview page={(id) => <ReportPage reviewId={id} />} />} />
      <Route path="/r/:reviewId/databases" element={<InReview page={() => <DatabasesPage />} />} />
      <Route path="/r/:reviewId/account" element={<InReview page={() => <AccountPage />} />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

/** Gather with the person's libraries at its foot and requests to others beside each work. */
function Gathering({ reviewId }: { reviewId: number }) {
  return (
    <GatherPage
      reviewId={reviewId}
      foot={<LibraryFoot />}
      loans={{
        ofWork: (workId, mayAsk) => <LoanPart reviewId={reviewId} workId={workId} mayAsk={mayAsk} />,
        ofMany: (works) => <AskForLoans reviewId={reviewId} works={works} />,
      }}
    />
  );
}

/** Where a person lands: in the first of their reviews, or among the reviews when there is none. */
function Home() {
  const reviews = useReviews();
  if (!reviews.data) return null;
  const first = reviews.data[0];
  return <Navigate to={first ? `/r/${first.id}/search` : "/reviews"} replace />;
}

const ReadPage = lazy(() => import("../features/read/ReadPage"));

/** The reader comes with its engine only when a text is opened. */
function Reading({ reviewId }: { reviewId: number }) {
  const textId = Number(useParams()["textId"]);
  return (
    <Suspense
      fallback={
        <div className="p-8" aria-busy="true">
          <div className="shape h-96 w-full" />
        </div>
      }
    >
      <ReadPage key={textId} reviewId={reviewId} textId={textId} />
    </Suspense>
  );
}

function Outside({ page }: { page: React.ReactNode }) {
  return <Frame review={null}>{page}</Frame>;
}

function InReview({ page }: { page: (reviewId: number) => React.ReactNode }) {
  const reviewId = Number(useParams()["reviewId"]);
  const review = useReview(reviewId);
  if (review.error)
    return (
      <Frame review={null}>
        <div className="p-8">
          <Fault error={review.error} again={() => void review.refetch()} />
        </div>
      </Frame>
    );
  return <Frame review={review.data ?? null}>{review.data ? page(reviewId) : null}</Frame>;
}
