import type { Dto } from "../../api/client";
import type { Place, SortOrder, StepAct } from "../../set/useSet";

/** What every list beside the seeds is given. */
export interface SideProps {
  place: Place;
  state: Dto<"SearchStateDto">;
  sort: SortOrder;
  onSort: (sort: SortOrder) => void;
  selected: number | null;
  onOpen: (id: number) => void;
  take: (act: StepAct) => void;
  onDown: (isDown: boolean) => void;
}
