"use server";

import { asWriter, type Answer } from "../auth/as-writer";
import { takeStarterSet } from "./starter";

export const takeStarter = async (): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    takeStarterSet(me);
    return {};
  });
