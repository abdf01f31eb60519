"use client";

import type { PlacedFinding } from "@/core/finding";
import { useKept } from "../draft/use-kept";
import { Slip } from "../frame/dialog";

export function WaiveSlip({
  finding,
  onClose,
  onWaive,
  hand,
}: {
  finding: PlacedFinding | null;
  onClose: () => void;
  onWaive: (key: string, reason: string) => Promise<void>;
  hand: string;
}) {
  const [reason, setReason] = useKept(`aside ${finding?.key}`, "");
  return (
    <Slip open={finding !== null} onClose={onClose} title={`Waive ${finding?.label ?? ""}`}>
      <form
        onSubmit={async (e) => {
          e.preventDefault();
          if (!finding) return;
          await onWaive(finding.key, reason);
          setReason("");
          onClose();
        }}
      >
        <p className="mb-3">{finding?.says}</p>
        <label className="block">
          <span className="label">Reason (recorded with your name, {hand})</span>
          <textarea
            autoFocus
            className="textarea"
            rows={3}
            value={reason}
            maxLength={400}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-primary mt-3" disabled={reason.trim().length < 8}>
          Waive
        </button>
      </form>
    </Slip>
  );
}
