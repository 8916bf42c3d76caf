import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import {
  chooseDrivePolicy,
  chooseGlassPolicy,
  chooseReleaseRule,
  chooseShopClock,
  takeRuleBookFile,
  writeLetterhead,
  writeRuleBook,
} from "@/server/settings/actions";
import { workers } from "@/server/day/build";
import { dayRules } from "@/server/day/store";
import { listBoards } from "@/server/kit/store";
import { drivePolicy, glassPolicy, releaseRule, ruleBook } from "@/server/shop/store";
import { letterhead } from "@/server/shop/letterhead";
import { SettingsPage } from "@/ui/settings/settings-page";

export const metadata: Metadata = { title: "Rules" };

export default async function RulesPage() {
  const me = await requirePerson();
  return (
    <SettingsPage
      policy={glassPolicy()}
      book={ruleBook()}
      lead={me.role === "lead"}
      boards={listBoards().map((b) => b.code)}
      choosePolicy={chooseGlassPolicy}
      release={releaseRule()}
      chooseRelease={chooseReleaseRule}
      drives={drivePolicy()}
      chooseDrives={chooseDrivePolicy}
      days={dayRules()}
      people={workers()}
      zones={Intl.supportedValuesOf("timeZone")}
      chooseClock={chooseShopClock}
      letterhead={letterhead()}
      writeLetterhead={writeLetterhead}
      writeBook={writeRuleBook}
      takeFile={takeRuleBookFile}
    />
  );
}
