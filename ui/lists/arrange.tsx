"use client";

import { Check, SlidersHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

type Sort = { id: string; desc: boolean };
type Props = {
  columns: { id: string; name: string; leads?: boolean; value?: unknown }[];
  sort: Sort | null;
  hidden: string[];
  onSort: (sort: Sort | null) => void;
  onHidden: (hidden: string[]) => void;
  onReset: () => void;
};

const ITEM =
  "flex min-h-12 cursor-default select-none items-center gap-3 rounded-sm px-3 text-base outline-none data-highlighted:bg-wash";

/** How a list is arranged: what it is sorted by and which columns stand in it. */
export function Arrange({ columns, sort, hidden, onSort, onHidden, onReset }: Props) {
  const named = columns.filter((c) => c.name !== "");
  const toHide = named.filter((c) => !c.leads);
  const arranged = sort !== null || hidden.length > 0;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label="Sort and columns"
        title="Sort and columns"
        className={`inline-flex min-h-12 min-w-12 items-center justify-center rounded-md hover:bg-wash ${arranged ? "text-act" : "text-soft"}`}
      >
        <SlidersHorizontal size={22} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          collisionPadding={8}
          className="z-50 max-h-(--radix-dropdown-menu-content-available-height) min-w-60 overflow-y-auto rounded-md border border-hairline bg-sheet p-2 text-ink"
        >
          <DropdownMenu.Label className="px-3 pb-1 text-sm font-semibold text-soft">
            Sort by
          </DropdownMenu.Label>
          <DropdownMenu.RadioGroup value={sort?.id ?? ""}>
            {named
              .filter((c) => c.value !== undefined)
              .map((c) => {
                const chosen = sort?.id === c.id;
                return (
                  <DropdownMenu.RadioItem
                    key={c.id}
                    value={c.id}
                    className={ITEM}
                    // Chosen once more, it turns round.
                    onSelect={() => onSort({ id: c.id, desc: chosen && !sort.desc })}
                  >
                    <Ticked /> {c.name}
                    {chosen && (
                      <>
                        <span aria-hidden>{sort.desc ? "↓" : "↑"}</span>
                        <span className="sr-only">{sort.desc ? "downward" : "upward"}</span>
                      </>
                    )}
                  </DropdownMenu.RadioItem>
                );
              })}
          </DropdownMenu.RadioGroup>
          {toHide.length > 0 && (
            <>
              <DropdownMenu.Separator className="my-2 h-px bg-hairline" />
              <DropdownMenu.Label className="px-3 pb-1 text-sm font-semibold text-soft">
                Columns
              </DropdownMenu.Label>
              {toHide.map((c) => (
                <DropdownMenu.CheckboxItem
                  key={c.id}
                  className={ITEM}
                  checked={!hidden.includes(c.id)}
                  // Several are chosen in one go.
                  onSelect={(e) => e.preventDefault()}
                  onCheckedChange={(on) =>
                    onHidden(on ? hidden.filter((id) => id !== c.id) : [...hidden, c.id])
                  }
                >
                  <Ticked /> {c.name}
                </DropdownMenu.CheckboxItem>
              ))}
            </>
          )}
          {arranged && (
            <>
              <DropdownMenu.Separator className="my-2 h-px bg-hairline" />
              <DropdownMenu.Item className={ITEM} onSelect={onReset}>
                <Room /> As it was given
              </DropdownMenu.Item>
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const Room = ({ children }: { children?: ReactNode }) => (
  <span className="inline-flex w-5 justify-center">{children}</span>
);

const Ticked = () => (
  <Room>
    <DropdownMenu.ItemIndicator>
      <Check size={18} aria-hidden />
    </DropdownMenu.ItemIndicator>
  </Room>
);
