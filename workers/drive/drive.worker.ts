import { expose } from "comlink";
import { joinsOf } from "@/core/drive/least";
import { networkOf, type Network } from "@/core/drive/network";
import { plansFor, type PlanAsked, type Planned } from "@/core/drive/plan";
import type { Roads } from "@/core/drive/road";

// Hundreds of thousands of half drives: beside the page, so that the page stays quick.
let network: Network = { nodes: [], ways: [] };
const drive = {
  /** The roads of all that is asked from now on: they are joined once. */
  know: (roads: Roads): void => {
    network = networkOf(roads);
    joinsOf(network);
  },
  plans: (asked: Omit<PlanAsked, "network">): Planned => plansFor({ ...asked, network }),
};
export type DriveWorker = typeof drive;
expose(drive);
