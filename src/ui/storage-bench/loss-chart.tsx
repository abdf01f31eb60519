"use client";

import {
  Chart,
  Legend,
  LinearScale,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from "chart.js";
import { Scatter } from "react-chartjs-2";
import { chance, type BenchCandidate } from "@/core/storage";
import { formatBytes } from "@/core/units";
import { useInk } from "../frame/use-ink";

Chart.register(ScatterController, PointElement, LinearScale, LogarithmicScale, Tooltip, Legend);

const SHAPES = { ZFS: "circle", md: "rect", "RAID controller": "triangle" } as const;

/** Usable against the chance of loss, on one scale; what stands lower at the right is better. The table says the same. */
export function LossChart({
  candidates,
  chosen,
}: {
  candidates: readonly BenchCandidate[];
  chosen: BenchCandidate | null;
}) {
  const { ink, rule, stop } = useInk();
  const sets = (Object.keys(SHAPES) as (keyof typeof SHAPES)[]).map((school) => {
    const own = candidates.filter((c) => c.layout.kind.school === school);
    return {
      label: school,
      data: own.map((c) => ({ x: c.usableBytes / 1e12, y: c.loss })),
      names: own.map((c) => `${c.name}: ${formatBytes(c.usableBytes)}, ${chance(c.loss)}`),
      pointStyle: SHAPES[school],
      pointRadius: own.map((c) => (c === chosen ? 9 : 5)),
      borderColor: own.map((c) => (c === chosen ? stop : ink)),
      borderWidth: own.map((c) => (c === chosen ? 3 : 1.5)),
      backgroundColor: "transparent",
    };
  });
  const axis = (text: string) => ({
    title: { display: true, text, color: ink },
    ticks: { color: ink },
    grid: { color: rule },
  });
  return (
    <div className="h-80">
      <Scatter
        aria-label="Usable capacity and probability of data loss in 5 years, as in the table"
        data={{ datasets: sets.filter((s) => s.data.length > 0) }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          scales: {
            x: { type: "linear", ...axis("usable, TB") },
            y: {
              type: "logarithmic",
              ...axis("data loss in 5 years"),
              ticks: { color: ink, maxTicksLimit: 6, callback: (v) => chance(Number(v)) },
            },
          },
          plugins: {
            legend: { position: "bottom", labels: { color: ink, usePointStyle: true } },
            tooltip: {
              callbacks: {
                label: ({ dataset, dataIndex }) => (dataset as (typeof sets)[number]).names[dataIndex] ?? "",
              },
            },
          },
        }}
      />
    </div>
  );
}
