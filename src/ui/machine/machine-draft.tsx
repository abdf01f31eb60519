"use client";

import { WRITTEN_NAMES, type Written } from "@/core/machine";
import { writtenContext } from "../draft/written-context";

/** What people write about a machine, as its page writes it. */
export const {
  Draft: MachineDraft,
  Foot: MachineFoot,
  use: useMachine,
} = writtenContext<Written>("machine", WRITTEN_NAMES);
