/** Small reports for tests of layouts: only what a drawing reads, the rest empty. */
import type { FamilyReport, Margin, Report, PowerNode, Text } from "../api/types";

export function margin(fields: Partial<Margin>): Margin {
  return {
    id: "m",
    rule: "PWR-04",
    family: "power",
    label: "",
    unit: "A",
    value: 0,
    limit: 1,
    limit_kind: "max",
    spare: 1,
    spare_p05: null,
    spare_p95: null,
    holds_share: null,
    loaded_share: null,
    ruler_share: 1,
    ruler_p05: null,
    ruler_p95: null,
    severity: "ok",
    planned: "ok",
    worst_case: null,
    state: "idle",
    state_label: "Idle",
    lines: [],
    sockets: [],
    states: ["idle"],
    spare_by_state: [1],
    ruler_by_state: [1],
    severity_by_state: ["ok"],
    ...fields,
  };
}

export function ruler(fields: Partial<FamilyReport>): FamilyReport {
  return {
    id: "power",
    label: "Supply",
    checked: true,
    severity: "ok",
    planned: "ok",
    margin: null,
    finding: null,
    spare: null,
    unit: "",
    ruler_share: null,
    ruler_p05: null,
    ruler_p95: null,
    worst_case: null,
    why_not: "",
    ...fields,
  };
}

export function node(id: string, parent: string | null, current: number, fields = {}): PowerNode {
  return {
    id,
    parent,
    line: id,
    kind: "device",
    label: id,
    rail: "in",
    via: "plug",
    resistance_ohm: 0,
    voltage_v: [5],
    current_a: [current],
    input_a: [current],
    loads_a: [0],
    margins: [],
    ...fields,
  };
}

export function report(fields: {
  nodes?: PowerNode[];
  margins?: Margin[];
  fit?: Partial<Report["fit"]>;
}): Report {
  const told: Partial<Report> = {
    plan: "test",
    samples: 1,
    severity: "ok",
    families: [],
    margins: fields.margins ?? [],
    purpose: [],
    findings: [],
    done: [],
    aside: [],
    lines: [],
    fit: {
      connections: [],
      spare: [],
      boxes: [],
      beside: [],
      plugs: [],
      overlaps: [],
      gaps: [],
      access: [],
      fasteners: [],
      board_length_mm: null,
      board_width_mm: null,
      board_thickness_mm: null,
      case: null,
      reaches: [],
      template_why_not: "",
      header: { why_not: "", pins: [], users: [], addresses: [], wires: [], wired: [] },
      outside: [],
      ...fields.fit,
    },
    power: {
      states: [{ id: "idle", label: "Idle", hard: true }],
      nodes: fields.nodes ?? [],
      collapsed: [false],
      source_w: [0],
      unfed: [],
    },
    heat: {
      why_not: "",
      ambient_c: 25,
      states: [],
      nodes: [],
      paths: [],
      wanted_die_c: [],
      speed_share: [],
      least_speed_share: 1,
      least_speed_when: "",
      inside_w: [],
      hottest_ambient_c: null,
      hottest_ambient_p05_c: null,
      hottest_ambient_p95_c: null,
      hottest_ambient_then: "",
    },
    noise: { heard: [], level_dba: 0, limit_dba: null, rooms: [] },
    cost: {
      currency: "EUR",
      total: "0",
      copies: 1,
      further: "0",
      owned_value: "0",
      budget: null,
      unknown: [],
      lines: [],
    },
    next_step: { text: plain(""), role: null, finding: null, figure: null },
  };
  return told as Report; // an aspect without a drawing in the test is left out
}

/** A text of words alone. */
export function plain(words: string): Text {
  return { text: words, parts: words ? [words] : [] };
}

/** What a person reads: spaces that do not break look like any other. */
export function read(text: string): string {
  return text.replaceAll("\u00a0", " ");
}
