import type { Breath, Report } from "../api/client";

const shown = (value: number | null | undefined) => (value == null ? "not readable" : value.toFixed(1));
const COLUMNS: readonly [string, keyof Breath][] = [
  ["starts, s", "inhale_start_s"],
  ["in", "inhale_beats"],
  ["pause", "pause_beats"],
  ["out", "exhale_beats"],
  ["abdomen", "abdomen_amp"],
  ["chest", "chest_amp"],
  ["shoulders", "shoulder_rise"],
];

/** The score as a table, for those who hear it. */
export function BreathTable({ report }: { report: Report }) {
  return (
    <div className="unseen">
      <table>
        <caption>Breaths, lengths in beats, movement in percent of the trunk</caption>
        <thead>
          <tr>
            <th>breath</th>
            {COLUMNS.map(([name]) => (
              <th key={name}>{name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.breaths.map((breath, i) => (
            <tr key={breath.inhale_start_s ?? i}>
              <th>{i + 1}</th>
              {COLUMNS.map(([name, key]) => (
                <td key={name}>{shown(breath[key] as number | null | undefined)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
