import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { CiteSheet } from "./CiteSheet";
import { TextsSheet } from "./TextsSheet";
import { MenuFrame, MenuItem, MenuLabel, MenuLine, menuItem } from "../../ui/Menu";
import { works } from "../../ui/numbers";
import type { Place } from "../useSet";
import { barButton } from "../../ui/Button";

const formats: [string, string, string][] = [
  ["ris", "RIS", "reference managers"],
  ["bibtex", "BibTeX", "LaTeX"],
  ["csl-json", "CSL-JSON", "citation processors"],
  ["csv", "CSV", "spreadsheets"],
];

/** Hands the set in view on as a file, in one act. */
export function ExportMenu({ place, total }: { place: Place; total: number }) {
  const [citing, setCiting] = useState(false);
  const [texts, setTexts] = useState(false);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger disabled={total === 0} className={barButton}>
          Export
        </DropdownMenu.Trigger>
        <MenuFrame width={230} align="end">
          <MenuLabel>{works(total)}, in the order of the list</MenuLabel>
          {formats.map(([format, name, use]) => (
            <DropdownMenu.Item key={format} asChild className={menuItem}>
              <a
                href={`/api/reviews/${place.reviewId}/export?stepId=${place.stepId}&sort=${place.sort}&format=${format}`}
                download
              >
                <span>{name}</span>
                <span className="text-[12px] text-quiet">{use}</span>
              </a>
            </DropdownMenu.Item>
          ))}
          <MenuLine />
          <MenuItem onSelect={() => setCiting(true)} aside="in any style">
            Bibliography …
          </MenuItem>
          <MenuItem onSelect={() => setTexts(true)} aside="zip of PDFs">
            Texts in hand …
          </MenuItem>
        </MenuFrame>
      </DropdownMenu.Root>
      {texts && <TextsSheet place={place} close={() => setTexts(false)} />}
      <CiteSheet
        reviewId={place.reviewId}
        cited={{ stepId: place.stepId }}
        open={citing}
        close={() => setCiting(false)}
      />
    </>
  );
}
