"use client";

import { formatDate, formatClock } from "@/core/units";
import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartOptions,
} from "chart.js";
import { Line } from "react-chartjs-2";
import { useInk } from "../frame/use-ink";
import { READING_KINDS, type Reading, type ReadingKind } from "@/core/readings";

Chart.defaults.font.family = "Atkinson Hyperlegible Next Variable, sans-serif";
Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip, Legend, Filler);

/** Distances between marks of time: from five minutes to a week. */
const STEPS = [5, 15, 30, 60, 180, 360, 720, 1440, 4320, 10_080].map((minutes) => minutes * 60_000);
const DASHES = [[], [6, 3], [2, 3], [8, 3, 2, 3], [1, 4], [12, 4]];
const SHAPES = ["circle", "rect", "triangle", "rectRot", "cross", "star"] as const;

/** Axes in the ink of the theme; times in milliseconds, marks of time `step` apart. */
function chartOptions({
  from,
  to,
  span,
  step,
  ink,
  rule,
  unit,
  format,
}: {
  from: number;
  to: number;
  span: number;
  step: number;
  ink: string;
  rule: string;
  unit: string;
  format: (at: string) => string;
}): ChartOptions<"line"> {
  return {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        type: "linear",
        min: Math.floor((from - span * 0.03) / step) * step,
        max: Math.ceil((to + span * 0.03) / step) * step,
        ticks: { color: ink, stepSize: step, callback: (v) => format(new Date(Number(v)).toISOString()) },
        grid: { color: rule },
      },
      y: {
        title: { display: true, text: unit, color: ink },
        ticks: { color: ink },
        grid: { color: rule },
        grace: "10%",
      },
    },
    plugins: {
      legend: {
        labels: {
          color: ink,
          usePointStyle: true,
          boxWidth: 8,
          boxHeight: 7,
          font: { family: "Atkinson Hyperlegible Next Variable", size: 12 },
        },
      },
      tooltip: {
        callbacks: {
          title: (items) => format(new Date(Number(items[0]?.parsed.x)).toISOString()),
          label: (item) => `${item.dataset.label}: ${item.parsed.y} ${unit}`,
        },
      },
    },
  };
}

/** How one line of the chart runs, in words. */
function courseWords(label: string, data: readonly { y: number }[], unit: string): string {
  const values = data.map((d) => d.y);
  const [first, last] = [values[0], values.at(-1)];
  if (values.length < 2) return `${label}, ${last} ${unit}`;
  return `${label}, ${values.length} measurements from ${first} to ${last} ${unit}, maximum ${Math.max(...values)}`;
}

/** One kind of reading over time: a line for each thing measured, told apart by dash and mark, with the lowest limit. */
export function ReadingChart({
  kind,
  readings,
  timeZone,
}: {
  kind: ReadingKind;
  readings: Reading[];
  timeZone: string;
}) {
  const { ink, rule, stop } = useInk();
  const things = [...new Set(readings.map((r) => `${r.what}\n${r.state}`))].slice(0, 6);
  // Each thing has its own limit; equal ones share a line.
  const limits = new Map<number, string[]>();
  for (const r of readings)
    if (r.limit !== null && !limits.get(r.limit)?.includes(r.what))
      limits.set(r.limit, [...(limits.get(r.limit) ?? []), r.what]);
  const times = readings.map((r) => Date.parse(r.at));
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const span = Math.max(to - from, 3_600_000);
  const step = STEPS.find((n) => span / n <= 8) ?? 30 * 86_400_000;
  const dayLong = span > 2 * 86_400_000;
  const format = (at: string): string => (dayLong ? formatDate(at, timeZone) : formatClock(at, timeZone));
  const { unit, words } = READING_KINDS[kind];
  const options = chartOptions({ from, to, span, step, ink, rule, unit, format });
  const datasets = things.map((thing, i) => {
    const [what = "", state = ""] = thing.split("\n");
    return {
      label: `${what}${state === "not told" ? "" : `, ${state}`}`,
      data: readings
        .filter((r) => `${r.what}\n${r.state}` === thing)
        .map((r) => ({ x: Date.parse(r.at), y: r.value })),
      borderColor: ink,
      backgroundColor: ink,
      borderWidth: 1.5,
      borderDash: DASHES[i],
      pointStyle: SHAPES[i],
      pointRadius: 4,
      tension: 0,
    };
  });
  const limitLines = [...limits].slice(0, 4).map(([limit, of]) => ({
    label: `${kind === "network" || kind === "disk" ? "rated" : "limit"} ${limit} ${unit}, ${of.join(", ")}`,
    data: [
      { x: from - span, y: limit },
      { x: to + span, y: limit },
    ],
    borderColor: stop,
    backgroundColor: stop,
    borderWidth: 1.5,
    borderDash: [3, 3],
    pointRadius: 0,
    pointStyle: "line" as const,
    tension: 0,
  }));
  return (
    <figure className="h-60">
      <figcaption className="sr-only">
        {words} over time: {datasets.map((d) => courseWords(d.label, d.data, unit)).join("; ")}
        {[...limits].map(([limit, of]) => `; limit ${limit} ${unit} of ${of.join(", ")}`).join("")}
      </figcaption>
      <Line data={{ datasets: [...datasets, ...limitLines] }} options={options} aria-hidden="true" />
    </figure>
  );
}
